/** How strict each rater is against the others. */
@NullMarked
package org.mossbank.core.severity;

import org.jspecify.annotations.NullMarked;
