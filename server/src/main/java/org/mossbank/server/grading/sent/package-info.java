/** The grades that were sent in, read whole for what is worked out of them. */
@NullMarked
package org.mossbank.server.grading.sent;

import org.jspecify.annotations.NullMarked;
