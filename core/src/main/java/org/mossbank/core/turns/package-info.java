/** How an answer went from turn to turn: what a follow-up mended, broke or left stuck, and after how many it works. */
@NullMarked
package org.mossbank.core.turns;

import org.jspecify.annotations.NullMarked;
