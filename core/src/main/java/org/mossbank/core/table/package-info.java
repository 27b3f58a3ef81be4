/** Agreement of whoever put values on the same things, from a table of one's own, without a study. */
@NullMarked
package org.mossbank.core.table;

import org.jspecify.annotations.NullMarked;
