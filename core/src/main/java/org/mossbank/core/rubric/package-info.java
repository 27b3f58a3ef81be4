/** From levels on criteria to one score. */
@NullMarked
package org.mossbank.core.rubric;

import org.jspecify.annotations.NullMarked;
