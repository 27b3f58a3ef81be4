/** Where the variance of scores comes from, and how sure an order of candidates is with more prompts or raters. */
@NullMarked
package org.mossbank.core.generalizability;

import org.jspecify.annotations.NullMarked;
