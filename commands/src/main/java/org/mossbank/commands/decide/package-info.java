/** What the core makes of grades in a file, without a server. */
@NullMarked
package org.mossbank.commands.decide;

import org.jspecify.annotations.NullMarked;
