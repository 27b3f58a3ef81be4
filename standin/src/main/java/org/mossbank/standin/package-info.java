/** A small server that plays outside model services, each with a wire shape of its own, for the demo and the tests. */
@NullMarked
package org.mossbank.standin;

import org.jspecify.annotations.NullMarked;
