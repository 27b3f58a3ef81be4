/** Orders: ranks and how they agree, and abilities from comparisons of two. */
@NullMarked
package org.mossbank.core.ranking;

import org.jspecify.annotations.NullMarked;
