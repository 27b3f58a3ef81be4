/** Where a Markdown text has blocks of code. */
@NullMarked
package org.mossbank.core.markdown;

import org.jspecify.annotations.NullMarked;
