/** Memos as rows of the open format. */
@NamedInterface("rows")
@NullMarked
package org.mossbank.server.memo.rows;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.NamedInterface;
