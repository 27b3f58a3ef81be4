package org.mossbank.core.comparison;

import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;

/**
 * Where a candidate stands.
 *
 * @param candidate    which
 * @param adjusted     mean score, adjusted for prompts and raters
 * @param interval     for other prompts and other raters; cut at 0 and 100
 * @param plain        mean of the scores as they are
 * @param cells        scores it rests on
 * @param chanceOfBest share of resamples in which no other candidate stands higher; ties share
 */
public record Standing(
        String candidate, Estimate adjusted, Interval interval, Estimate plain, int cells, Estimate chanceOfBest) {}
