/** Who grades what, in which order. */
@NullMarked
package org.mossbank.core.assignment;

import org.jspecify.annotations.NullMarked;
