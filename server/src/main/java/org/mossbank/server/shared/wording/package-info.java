/** How numbers and times stand in sentences. */
@NullMarked
package org.mossbank.server.shared.wording;

import org.jspecify.annotations.NullMarked;
