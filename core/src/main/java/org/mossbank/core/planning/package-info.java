/** How much grading is enough: what a planned study could show, by simulation. */
@NullMarked
package org.mossbank.core.planning;

import org.jspecify.annotations.NullMarked;
