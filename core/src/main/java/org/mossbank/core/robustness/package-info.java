/** What an outcome hangs on: prompts, raters, criteria and kinds left out, weights moved. */
@NullMarked
package org.mossbank.core.robustness;

import org.jspecify.annotations.NullMarked;
