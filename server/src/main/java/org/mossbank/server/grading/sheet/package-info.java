/** What is kept of sheets: which answers are on them, and what was said of those. */
@NullMarked
package org.mossbank.server.grading.sheet;

import org.jspecify.annotations.NullMarked;
