/** Messages inside the application, from a lead to a rater. */
@NullMarked
package org.mossbank.server.grading.reminding;

import org.jspecify.annotations.NullMarked;
