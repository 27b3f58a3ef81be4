/** Quality against what it costs. */
@NullMarked
package org.mossbank.core.tradeoff;

import org.jspecify.annotations.NullMarked;
