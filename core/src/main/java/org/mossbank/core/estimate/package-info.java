/** What every statistic is made of: a value or the reason there is none, an interval, a seeded source of resamples. */
@NullMarked
package org.mossbank.core.estimate;

import org.jspecify.annotations.NullMarked;
