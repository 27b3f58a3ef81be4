/** What a page must do and show, step by step, and what came of it. */
@NullMarked
package org.mossbank.core.page;

import org.jspecify.annotations.NullMarked;
