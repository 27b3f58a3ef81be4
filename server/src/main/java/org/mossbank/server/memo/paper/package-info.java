/** A memo written down: as a page, as Markdown, as a package of files. */
@NullMarked
package org.mossbank.server.memo.paper;

import org.jspecify.annotations.NullMarked;
