package org.mossbank.core.comparison;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.IntBinaryOperator;
import java.util.stream.IntStream;
import org.mossbank.core.estimate.Estimate;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class MixedGridsTest {
    private static final double LEVEL = 0.95;
    private static final int CANDIDATES = 4;
    private static final PromptGroups KINDS = PromptGroups.byKind(p -> "k" + Integer.parseInt(p.substring(1)) % 2);

    @DataProvider
    public Object[][] weights() {
        return new Object[][] {
            {0.0, new double[] {0.5, 0.25, 0.25}},
            {0.3, new double[] {0.1, 0.2, 0.7}},
            {0.3, new double[] {1, 0, 0}},
            {0.6, new double[] {1.0 / 3, 1.0 / 3, 1.0 / 3}},
        };
    }

    private static ScoreGrid base(double missing) {
        Random random = new Random(7);
        List<ScoredCell> cells = new ArrayList<>();
        for (int c = 0; c < CANDIDATES; c++) {
            for (int p = 0; p < 12; p++) {
                for (int r = 0; r < 4; r++) {
                    if (random.nextDouble() >= missing) {
                        cells.add(new ScoredCell("c" + c, "p" + (10 + p), "r" + r, 0));
                    }
                }
            }
        }
        return ScoreGrid.of(cells, KINDS);
    }

    private static double[][] part(ScoreGrid base, IntBinaryOperator level) {
        return IntStream.range(0, base.candidates().size())
                .mapToObj(c -> IntStream.range(0, base.places())
                        .mapToDouble(p -> 25 * level.applyAsInt(c, p))
                        .toArray())
                .toArray(double[][]::new);
    }

    private static double[][] sum(List<double[][]> parts, double[] weights) {
        double[][] sum = new double[CANDIDATES][parts.get(0)[0].length];
        for (int k = 0; k < weights.length; k++) {
            for (int c = 0; c < sum.length; c++) {
                for (int p = 0; p < sum[c].length; p++) {
                    sum[c][p] += weights[k] * parts.get(k)[c][p];
                }
            }
        }
        return sum;
    }

    @Test(dataProvider = "weights")
    public void whatDecidesIsThatOfTheWeightedScores(double missing, double[] weights) {
        ScoreGrid base = base(missing);
        Random random = new Random(3);
        List<double[][]> parts = IntStream.range(0, weights.length)
                .mapToObj(k -> part(base, (c, p) -> random.nextInt(5)))
                .toList();
        double[][] scores = sum(parts, weights);

        same(
                Standings.forDeciding(new MixedGrids(base, parts).of(scores, weights), LEVEL),
                Standings.forDeciding(base.with(scores), LEVEL));
    }

    /** No cell is gone through: with scores that are all nought, what decides is that of the parts. */
    @Test
    public void whatDecidesFollowsFromThePartsAlone() {
        ScoreGrid base = base(0.2);
        Random random = new Random(11);
        double[] weights = {0.6, 0.4};
        List<double[][]> parts = IntStream.range(0, weights.length)
                .mapToObj(k -> part(base, (c, p) -> random.nextInt(5)))
                .toList();
        double[][] nought = new double[CANDIDATES][base.places()];

        same(
                Standings.forDeciding(new MixedGrids(base, parts).of(nought, weights), LEVEL),
                Standings.forDeciding(base.with(sum(parts, weights)), LEVEL));
        assertThatThrownBy(() -> new MixedGrids(base, parts).of(nought, 1))
                .isInstanceOf(IllegalArgumentException.class);
    }

    /** By hand: of three places the first chooses nobody, and the other two lie 10 and 30 over the one. */
    @Test
    public void aChoiceIsComparedWhereBothHaveAScore() {
        ScoreGrid grid = ScoreGrid.of(
                List.of(
                        new ScoredCell("a", "p10", "r0", 90),
                        new ScoredCell("a", "p11", "r0", 60),
                        new ScoredCell("b", "p10", "r0", 20),
                        new ScoredCell("b", "p11", "r0", 50),
                        new ScoredCell("b", "p12", "r0", 40),
                        new ScoredCell("c", "p12", "r0", 70)),
                PromptGroups.byKind(p -> "k"));
        int b = grid.candidateAt("b");
        int[] choice = {-1, grid.candidateAt("a"), grid.candidateAt("c")};
        assertThat(grid.choosing(place -> choice[place], b).orElseThrow().mean())
                .isEqualTo(20);
        assertThat(grid.choosing(place -> grid.candidateAt("a"), b)
                        .orElseThrow()
                        .mean())
                .as("a has no score at the third")
                .isEqualTo(40);
        assertThat(grid.choosing(place -> -1, b)).isEmpty();
        assertThat(grid.choosing(place -> grid.candidateAt("c"), grid.candidateAt("a")))
                .as("nowhere have both a score")
                .isEmpty();
    }

    /** The first two get the same on the whole, one for one thing and the other for another: they are equal, to the last digit. */
    @Test
    public void partsThatCancelLeaveNothingBetweenTwo() {
        ScoreGrid base = base(0);
        Random random = new Random(5);
        int[] level = random.ints(base.places(), 0, 5).toArray();
        List<double[][]> parts = List.of(
                part(base, (c, p) -> c == 0 ? level[p] : c == 1 ? 4 - level[p] : 1 + random.nextInt(2)),
                part(base, (c, p) -> c == 0 ? 4 - level[p] : c == 1 ? level[p] : random.nextInt(5)));
        double[] half = {0.5, 0.5};
        Difference none =
                Standings.forDeciding(new MixedGrids(base, parts).of(sum(parts, half), half), LEVEL)
                        .differences()
                        .stream()
                        .filter(d -> d.higher().equals("c0") && d.lower().equals("c1"))
                        .findFirst()
                        .orElseThrow();

        assertThat(none.estimate().value().orElseThrow()).isZero();
        assertThat(none.standardError().value().orElseThrow()).isZero();
        assertThat(none.adjustedP().value().orElseThrow()).isEqualTo(1);
    }

    /** Sums are known without the cells: else all of them would be gone through for every weighting. */
    @Test
    public void sumsOfWeightedValuesFollowFromThoseOfTheParts() {
        CrossedPattern pattern = pattern();
        Random random = new Random(1);
        List<double[]> parts = IntStream.range(0, 3)
                .mapToObj(k -> random.doubles(pattern.cells(), -100, 100).toArray())
                .toList();
        double[] weights = {0.2, 0.5, 0.3};
        double[] values = IntStream.range(0, pattern.cells())
                .mapToDouble(i -> IntStream.range(0, 3)
                        .mapToDouble(k -> weights[k] * parts.get(k)[i])
                        .sum())
                .toArray();

        close(new MixedSums(pattern, parts).of(weights), CrossedSums.of(pattern, values));
        assertThat(new MixedSums(pattern, List.of(values, values)).of(new double[] {1, -1}))
                .as("nothing is left but rounding")
                .isEmpty();
    }

    @Test
    public void sumsWithoutAPromptFollowFromThoseOfAll() {
        CrossedPattern whole = pattern();
        double[] values = new Random(2).doubles(whole.cells(), -100, 100).toArray();
        CrossedSums all = CrossedSums.of(whole, values);
        for (int family = 0; family < 6; family++) {
            int first = whole.first(family);
            int last = whole.first(family + 1);
            double[] left = IntStream.range(0, values.length)
                    .filter(i -> i < first || i >= last)
                    .mapToDouble(i -> values[i])
                    .toArray();
            CrossedPattern rest = whole.without(family).orElseThrow();
            close(all.without(whole, rest, family, i -> values[i]), CrossedSums.of(rest, left));
        }
        double[] one = IntStream.range(0, values.length)
                .mapToDouble(i -> i < whole.first(1) ? 25 * i : 0)
                .toArray();
        assertThat(CrossedSums.of(whole, one).without(whole, whole.without(0).orElseThrow(), 0, i -> one[i]))
                .as("all that varies went with the prompt")
                .isEmpty();
    }

    /** Six prompts of two kinds by three raters, some of whom miss one. */
    private static CrossedPattern pattern() {
        int[][] cells = {
            {0, 0}, {0, 1}, {0, 2}, {1, 0}, {1, 1}, {2, 0}, {2, 2}, {3, 0}, {3, 1}, {3, 2}, {4, 1}, {4, 2}, {5, 0},
            {5, 2}
        };
        return new CrossedPattern(
                IntStream.range(0, cells.length).map(i -> cells[i][0]).toArray(),
                IntStream.range(0, cells.length).map(i -> cells[i][1]).toArray(),
                new int[] {0, 1, 2, 3, 4, 5},
                new int[] {0, 0, 0, 1, 1, 1},
                3);
    }

    private static void close(Optional<CrossedSums> found, CrossedSums expected) {
        CrossedSums sums = found.orElseThrow();
        assertThat(sums.mean()).isCloseTo(expected.mean(), within(1e-9));
        assertThat(sums.squares()).isCloseTo(expected.squares(), within(1e-6));
        close(sums.byPrompt(), expected.byPrompt());
        close(sums.byKind(), expected.byKind());
    }

    private static void close(SweptRaters.Sums found, SweptRaters.Sums expected) {
        assertThat(found.within()).isCloseTo(expected.within(), within(1e-6));
        assertThat(found.side()).containsExactly(expected.side(), within(1e-9));
    }

    private static void same(Standings found, Standings expected) {
        assertThat(found.standings())
                .extracting(Standing::candidate)
                .isEqualTo(
                        expected.standings().stream().map(Standing::candidate).toList());
        for (int i = 0; i < found.standings().size(); i++) {
            assertThat(number(found.standings().get(i).adjusted()))
                    .isCloseTo(number(expected.standings().get(i).adjusted()), within(1e-9));
            assertThat(number(found.standings().get(i).plain()))
                    .isCloseTo(number(expected.standings().get(i).plain()), within(1e-9));
        }
        for (int i = 0; i < found.differences().size(); i++) {
            Difference a = found.differences().get(i);
            Difference b = expected.differences().get(i);
            assertThat(number(a.estimate())).isCloseTo(number(b.estimate()), within(1e-9));
            assertThat(number(a.standardError())).isCloseTo(number(b.standardError()), within(1e-9));
            assertThat(number(a.adjustedP())).isCloseTo(number(b.adjustedP()), within(1e-9));
            assertThat(a.freedom()).isCloseTo(b.freedom(), within(1e-6));
        }
    }

    private static double number(Estimate estimate) {
        return estimate.value().orElse(-1);
    }
}
