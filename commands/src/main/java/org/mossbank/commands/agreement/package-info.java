/** Agreement in a table of one's own, from the command line. */
@NullMarked
package org.mossbank.commands.agreement;

import org.jspecify.annotations.NullMarked;
