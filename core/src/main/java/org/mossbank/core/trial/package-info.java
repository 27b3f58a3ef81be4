/** Trials of an answer's code: how it is put together, what came out against what had to, and what several of them say. */
@NullMarked
package org.mossbank.core.trial;

import org.jspecify.annotations.NullMarked;
