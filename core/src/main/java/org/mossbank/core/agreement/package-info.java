/** How alike raters grade: coefficients, their intervals, and the splits behind them. */
@NullMarked
package org.mossbank.core.agreement;

import org.jspecify.annotations.NullMarked;
