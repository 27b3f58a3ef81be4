/** Talks about splits as rows of the open format. */
@NamedInterface("rows")
@NullMarked
package org.mossbank.server.reconciliation.rows;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.NamedInterface;
