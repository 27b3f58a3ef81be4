/** Checks, trials and what raters tried, as rows of the open format. */
@NamedInterface("rows")
@NullMarked
package org.mossbank.server.evidence.rows;

import org.jspecify.annotations.NullMarked;
import org.springframework.modulith.NamedInterface;
