/** The figures of a signed memo, worked out again from the archive that it rests on, without a server. */
@NullMarked
package org.mossbank.commands.recompute;

import org.jspecify.annotations.NullMarked;
