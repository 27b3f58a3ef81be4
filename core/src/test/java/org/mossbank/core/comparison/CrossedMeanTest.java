package org.mossbank.core.comparison;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import org.hipparchus.distribution.continuous.TDistribution;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class CrossedMeanTest {
    private static final double TOLERANCE = 1e-9;
    private static final PromptGroups ONE_KIND = PromptGroups.byKind(prompt -> "");

    private record Cell(String prompt, String rater, double value) {}

    private static CrossedMean of(List<Cell> cells, PromptGroups groups) {
        return ScoreGrid.of(
                        cells.stream()
                                .map(c -> new ScoredCell("only", c.prompt(), c.rater(), c.value()))
                                .toList(),
                        groups)
                .own(0);
    }

    private static List<Cell> cells(double[]... byPrompt) {
        List<Cell> cells = new ArrayList<>();
        for (int p = 0; p < byPrompt.length; p++) {
            for (int r = 0; r < byPrompt[p].length; r++) {
                if (!Double.isNaN(byPrompt[p][r])) {
                    cells.add(new Cell("p" + p, "r" + r, byPrompt[p][r]));
                }
            }
        }
        return cells;
    }

    private static CrossedMean of(double[]... byPrompt) {
        return of(cells(byPrompt), ONE_KIND);
    }

    /** Effects of prompts 0, 6, 12, 18, 24 and of raters 0, 4, 8, and a residual that adds up to nothing both ways. */
    private static double[][] balanced() {
        double[][] residual = {{1, -1, 0}, {-1, 1, 0}, {0, 1, -1}, {1, 0, -1}, {-1, -1, 2}};
        double[][] values = new double[5][3];
        for (int p = 0; p < 5; p++) {
            for (int r = 0; r < 3; r++) {
                values[p][r] = 6 * p + 4 * r + residual[p][r];
            }
        }
        return values;
    }

    @Test
    public void balancedDesignsFollowExpectedMeanSquares() {
        CrossedMean mean = of(balanced());

        // by hand: prompts 3 × 360 / 4 = 270; raters 5 × 32 / 2 = 80; residual 14 / 8
        double ms = 14 / 8.0;
        assertThat(mean.mean()).isCloseTo(16, within(TOLERANCE));
        assertThat(mean.components().prompt()).isCloseTo((270 - ms) / 3, within(TOLERANCE));
        assertThat(mean.components().rater()).isCloseTo((80 - ms) / 5, within(TOLERANCE));
        assertThat(mean.components().residual()).isCloseTo(ms, within(TOLERANCE));
        // (270 + 80 - MS) / 15
        double variance = (350 - ms) / 15;
        assertThat(mean.variance()).isCloseTo(variance, within(TOLERANCE));
        double freedom = (350 - ms) * (350 - ms) / (270 * 270 / 4.0 + 80 * 80 / 2.0 + ms * ms / 8);
        assertThat(mean.freedom()).isCloseTo(freedom, within(1e-6));
        Interval.Bounds bounds = (Interval.Bounds) mean.interval(0.9);
        double half = Math.sqrt(variance) * new TDistribution(freedom).inverseCumulativeProbability(0.95);
        assertThat(bounds.low()).isCloseTo(16 - half, within(1e-6));
        assertThat(bounds.high()).isCloseTo(16 + half, within(1e-6));
    }

    /** Without raters to speak of, the mean of prompts is a plain mean of five numbers. */
    @Test
    public void aRaterComponentBelowNothingIsLeftOut() {
        double[][] values = balanced();
        for (double[] row : values) {
            row[1] -= 4;
            row[2] -= 8;
        }

        CrossedMean mean = of(values);

        assertThat(mean.components().rater()).isZero();
        // by hand: prompts 270; residual over 10 degrees of freedom 14 / 10
        assertThat(mean.variance()).isCloseTo(270 / 15.0, within(TOLERANCE));
        assertThat(mean.freedom()).isCloseTo(4, within(TOLERANCE));
        assertThat(mean.components().residual()).isCloseTo(1.4, within(TOLERANCE));
    }

    /** On these prompts by these raters only what is left varies. */
    @Test
    public void hereOnlyWhatIsLeftVaries() {
        Interval.Bounds bounds = (Interval.Bounds) of(balanced()).intervalHere(0.95);
        // by hand: residual 14 / 8 over 15 cells, 8 degrees of freedom: t is 2.306
        assertThat(bounds.high() - bounds.low()).isCloseTo(2 * 2.306 * Math.sqrt(14 / 8.0 / 15), within(1e-3));
        assertThat(of(new double[] {1, Double.NaN}, new double[] {Double.NaN, 4})
                        .intervalHere(0.95))
                .isInstanceOf(Interval.Undefined.class);
    }

    @Test
    public void kindsAreFixed() {
        double[][] values = balanced();
        PromptGroups twoKinds = PromptGroups.byKind(p -> p.equals("p0") || p.equals("p1") ? "a" : "b");

        CrossedMean mean = of(cells(values), twoKinds);

        // by hand: within kinds 3 × (18 + 72) over 3 degrees of freedom
        assertThat(mean.components().prompt()).isCloseTo((90 - 14 / 8.0) / 3, within(TOLERANCE));
    }

    /** Henderson's components are unbiased, however many cells are missing: on average they are what was put in. */
    @Test
    public void componentsAreRightOnAverageWithCellsMissing() {
        Random random = new Random(3);
        int studies = 4000;
        double variance = 0;
        double mean = 0;
        double squares = 0;
        for (int s = 0; s < studies; s++) {
            double[][] values = new double[12][6];
            double[] rater = random.doubles(6, -1, 1).map(x -> x * 5).toArray();
            for (double[] row : values) {
                double prompt = 10 * random.nextGaussian();
                for (int r = 0; r < 6; r++) {
                    row[r] = random.nextDouble() < 0.4 ? Double.NaN : prompt + rater[r] + 4 * random.nextGaussian();
                }
            }
            CrossedMean found = of(values);
            variance += found.variance() / studies;
            mean += found.mean() / studies;
            squares += found.mean() * found.mean() / studies;
        }
        // Two standard errors of a variance from 4,000 draws are 4.5 %; components cut at 0 make it a little too wide.
        assertThat(variance / (squares - mean * mean)).isBetween(0.95, 1.08);
    }

    @Test
    public void wordingsOfOnePromptAreNoMorePrompts() {
        List<Cell> cells = cells(balanced());
        List<Cell> twice = new ArrayList<>(cells);
        cells.forEach(c -> twice.add(new Cell(c.prompt() + "-again", c.rater(), c.value())));
        PromptGroups families = new PromptGroups(p -> "x", p -> p.replace("-again", ""));

        CrossedMean once = of(cells, ONE_KIND);
        CrossedMean again = of(twice, families);

        assertThat(again.variance()).isCloseTo(once.variance(), within(TOLERANCE));
        assertThat(again.freedom()).isCloseTo(once.freedom(), within(TOLERANCE));
    }

    @Test
    public void eachPromptWeighsAlike() {
        CrossedMean mean =
                of(new double[] {10, 20, 30}, new double[] {50, Double.NaN, Double.NaN}, new double[] {0, 0, 0});

        assertThat(mean.mean()).isCloseTo((20 + 50 + 0) / 3.0, within(TOLERANCE));
    }

    @Test
    public void oneRaterOrOnePromptTellsNothingOfOthers() {
        Estimate none = Estimate.undefined(Reason.TOO_FEW_TO_RESAMPLE);
        assertThat(of(new double[] {1}, new double[] {2}).standardError()).isEqualTo(none);
        assertThat(of(new double[] {1, 2}).standardError()).isEqualTo(none);
        assertThat(of(new double[] {1, 2}).interval(0.95)).isEqualTo(Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE));
        assertThat(of(new double[] {1, 2}).p()).isEqualTo(none);
    }

    /** Where prompts seem to add nothing, but there are three of them, two degrees of freedom are all there is. */
    @Test
    public void fewPromptsStillBoundWhatIsKnown() {
        CrossedMean mean = of(new double[] {1, 9, 5}, new double[] {9, 1, 5}, new double[] {5, 5, 5});

        assertThat(mean.components().prompt()).isZero();
        assertThat(mean.freedom()).isEqualTo(2);
    }

    @Test
    public void oneRaterAPromptIsStillAMeanOfPrompts() {
        double nothing = Double.NaN;
        CrossedMean mean = of(
                new double[] {2, nothing},
                new double[] {nothing, 4},
                new double[] {6, nothing},
                new double[] {nothing, 8},
                new double[] {10, nothing});

        // by hand: variance 10 of five values
        assertThat(mean.variance()).isCloseTo(2, within(TOLERANCE));
        assertThat(mean.freedom()).isEqualTo(4);
    }

    @Test
    public void whereNothingVariesNothingIsUncertain() {
        CrossedMean mean = of(new double[] {0.1, 0.1}, new double[] {0.1, 0.1});

        assertThat(mean.variance()).isZero();
        assertThat(mean.p()).isEqualTo(Estimate.of(0));
        assertThat(of(new double[] {0, 0}, new double[] {0, 0}).p()).isEqualTo(Estimate.of(1));
    }

    @Test
    public void pairsThatAreAlikeLendEachOtherFreedomAndOthersHardly() {
        Random random = new Random(8);
        List<CrossedMean> alike = new ArrayList<>();
        List<CrossedMean> unlike = new ArrayList<>();
        for (int g = 0; g < 12; g++) {
            alike.add(of(noise(random, 10)));
            unlike.add(of(noise(random, g % 2 == 0 ? 1 : 60)));
        }

        PairVariances ofAlike = PairVariances.of(alike);
        PairVariances ofUnlike = PairVariances.of(unlike);

        double mean = alike.stream().mapToDouble(CrossedMean::freedom).average().orElseThrow();
        assertThat(ofAlike.freedom()).isCloseTo(mean / 2, within(TOLERANCE));
        assertThat(ofUnlike.freedom()).isLessThan(1.5);
        CrossedMean drawn = alike.get(0).with(ofAlike);
        assertThat(drawn.freedom()).isCloseTo(alike.get(0).freedom() + mean / 2, within(TOLERANCE));
        assertThat(drawn.variance())
                .isBetween(
                        Math.min(alike.get(0).variance(), ofAlike.variance()),
                        Math.max(alike.get(0).variance(), ofAlike.variance()));
        assertThat(PairVariances.of(alike.subList(0, 1)).freedom()).isZero();
    }

    private static double[][] noise(Random random, double sd) {
        double[][] values = new double[8][3];
        for (double[] row : values) {
            double prompt = sd * random.nextGaussian();
            for (int r = 0; r < row.length; r++) {
                row[r] = prompt + sd * random.nextGaussian();
            }
        }
        return values;
    }
}
