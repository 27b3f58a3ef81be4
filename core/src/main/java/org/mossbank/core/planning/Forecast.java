package org.mossbank.core.planning;

import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.random.RandomGenerator;
import java.util.random.RandomGenerator.SplittableGenerator;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;

/**
 * What a planned study could show, before it is begun.
 *
 * <p>Studies are made up ({@link Spread}) in which one candidate stands above the others, which are equal, by just the
 * margin. The procedure of {@link Standings} runs on a few of them for the width of its intervals, and point estimates on
 * many more say how often the difference would lie outside such an interval.
 *
 * <p>Undefined with one prompt in all, or one rater an answer too few to connect the study.
 *
 * @param halfWidth         mean half width of the 95 % interval for a difference, in points
 * @param correctedHalfWidth the same after Holm's correction for the number of pairs
 * @param chanceFound       share of studies in which the best is clear of another one
 * @param chanceClear       share of studies in which the best is clear of every other one, and so recommended
 */
public record Forecast(Estimate halfWidth, Estimate correctedHalfWidth, Estimate chanceFound, Estimate chanceClear) {
    private static final double LEVEL = 0.95;
    /** Where the others stand: far enough from both ends that a margin fits. */
    private static final double GROUND = 55;

    /**
     * How much is simulated.
     *
     * @param whole     studies on which the whole procedure runs
     * @param points    studies of which only the estimates are taken
     */
    public record Effort(int whole, int points) {
        /** Steady to about a twentieth of the width, and quick enough to drag a slider. */
        public static final Effort QUICK = new Effort(100, 1000);

        public Effort {
            Require.atLeast("whole", 1, whole);
            Require.atLeast("points", 10, points);
        }
    }

    /**
     * @param margin the smallest difference that matters, in points; the true difference in the made-up studies
     * @throws IllegalArgumentException if the margin is not above 0 or above 40
     */
    public static Forecast of(
            PlannedStudy study, Spread spread, double margin, Effort effort, SplittableGenerator random) {
        Require.that(margin > 0 && margin <= 40, "margin", "must lie in (0, 40]", margin);
        StudySimulation simulation = new StudySimulation(study, spread);
        double[] truth = new double[study.candidates()];
        Arrays.fill(truth, GROUND);
        truth[0] += margin;
        List<Optional<double[]>> widths =
                Resamples.drawAll(effort.whole(), random, child -> widths(simulation, truth, child));
        double[] known = means(widths);
        if (known.length == 0) {
            Estimate none = Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE);
            return new Forecast(none, none, none, none);
        }
        List<double[]> found = Resamples.drawAll(
                effort.points(),
                random.split(),
                child -> found(simulation.means(simulation.scores(truth, child)), known[0]));
        return new Forecast(
                Estimate.of(known[0]),
                Estimate.of(known[1]),
                Estimate.of(found.stream().mapToDouble(f -> f[0]).average().orElseThrow()),
                Estimate.of(found.stream().mapToDouble(f -> f[1]).average().orElseThrow()));
    }

    /** Mean half widths of a study's intervals, plain and corrected; empty where it has none. */
    private static Optional<double[]> widths(StudySimulation simulation, double[] truth, RandomGenerator random) {
        List<Difference> differences = Standings.differences(
                simulation.cells(truth, random), PromptGroups.byKind(PlannedStudy::kindOf), LEVEL);
        double plain = 0;
        double corrected = 0;
        for (Difference difference : differences) {
            if (difference.interval() instanceof Interval.Bounds a
                    && difference.adjustedInterval() instanceof Interval.Bounds b) {
                plain += (a.high() - a.low()) / 2;
                corrected += (b.high() - b.low()) / 2;
            } else {
                return Optional.empty();
            }
        }
        int n = differences.size();
        return n == 0 ? Optional.empty() : Optional.of(new double[] {plain / n, corrected / n});
    }

    private static double[] means(List<Optional<double[]>> widths) {
        List<double[]> known = widths.stream().flatMap(Optional::stream).toList();
        if (known.isEmpty()) {
            return new double[0];
        }
        return new double[] {
            known.stream().mapToDouble(w -> w[0]).average().orElseThrow(),
            known.stream().mapToDouble(w -> w[1]).average().orElseThrow()
        };
    }

    /** The share of others that the best, who comes first, is clear of, and whether it is clear of all. */
    private static double[] found(double[] means, double halfWidth) {
        int others = means.length - 1;
        long clear = Arrays.stream(means)
                .skip(1)
                .filter(other -> means[0] - other > halfWidth)
                .count();
        return new double[] {clear / (double) others, clear == others ? 1 : 0};
    }
}
