/** Texts that mean ill, and how much work they make. */
@NullMarked
package org.mossbank.core.hostile;

import org.jspecify.annotations.NullMarked;
