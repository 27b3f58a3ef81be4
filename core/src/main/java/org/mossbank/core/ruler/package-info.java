/** Whether what is graded again is graded as before: the ruler between two studies. */
@NullMarked
package org.mossbank.core.ruler;

import org.jspecify.annotations.NullMarked;
