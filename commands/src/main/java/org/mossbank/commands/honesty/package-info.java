/** How often the whole procedure says what is not so, in made-up studies whose truth is known. */
@NullMarked
package org.mossbank.commands.honesty;

import org.jspecify.annotations.NullMarked;
