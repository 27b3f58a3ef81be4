package org.mossbank.core.severity;

import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;

/**
 * How strict one rater is.
 *
 * @param rater       who
 * @param severity    levels by which the rater grades below the others on the same answers; negative is kind
 * @param interval    percentile interval over resampled clusters
 * @param grades      grades given
 * @param shareAtEnds share of the grades at the lowest or highest level, in [0, 1]
 */
public record RaterSeverity(String rater, Estimate severity, Interval interval, int grades, double shareAtEnds) {}
