/** Finding what gives an answer's candidate away, and taking it out without touching what stands around it. */
@NullMarked
package org.mossbank.core.masking;

import org.jspecify.annotations.NullMarked;
