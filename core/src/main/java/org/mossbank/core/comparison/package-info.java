/** Standings of candidates, adjusted for prompts and raters, and the differences between them. */
@NullMarked
package org.mossbank.core.comparison;

import org.jspecify.annotations.NullMarked;
