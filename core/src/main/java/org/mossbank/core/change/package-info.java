/** What an answer changes in the starting code: differences that it gives, and files that it prints again. */
@NullMarked
package org.mossbank.core.change;

import org.jspecify.annotations.NullMarked;
