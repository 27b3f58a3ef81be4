package org.mossbank.core.robustness;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Collections;
import java.util.Comparator;
import java.util.List;
import java.util.Random;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoreGrid;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class GradedAnswersTest {
    private static final PromptGroups KINDS = PromptGroups.byKind(p -> p.substring(0, 1));
    private static final int HIGHEST = 4;

    private record Given(String candidate, String prompt, String rater, String answer, int criterion, int level) {}

    private static List<Given> given(int attempts) {
        Random random = new Random(5);
        List<Given> all = new ArrayList<>();
        for (String candidate : List.of("a", "b", "c")) {
            for (int p = 0; p < 7; p++) {
                for (int n = 0; n < attempts; n++) {
                    for (String rater : List.of("ann", "ben")) {
                        for (int k = 0; k < 3; k++) {
                            String prompt = (p % 2 == 0 ? "x" : "y") + p;
                            all.add(new Given(
                                    candidate, prompt, rater, candidate + p + "-" + n, k, random.nextInt(HIGHEST + 1)));
                        }
                    }
                }
            }
        }
        return all;
    }

    private static GradedAnswers gathered(List<Given> given) {
        GradedAnswers.Accumulator all = new GradedAnswers.Accumulator(List.of("correctness", "idiom", "practice"));
        given.forEach(g -> all.add(g.candidate, g.prompt, g.rater, g.answer, g.criterion, g.level, HIGHEST, 100));
        return all.snapshot(KINDS);
    }

    private static List<ScoredCell> sorted(List<ScoredCell> cells) {
        return cells.stream()
                .sorted(Comparator.comparing(ScoredCell::candidate)
                        .thenComparing(ScoredCell::prompt)
                        .thenComparing(ScoredCell::rater))
                .toList();
    }

    /** By hand: weights 2, 1, 1 of levels 4, 2, 1 out of 4 are 100 (2 + 0.5 + 0.25) / 4 = 68.75. */
    @Test
    public void aScoreIsTheWeighedShareOfTheScale() {
        GradedAnswers one = gathered(List.of(
                new Given("a", "x", "ann", "a1", 0, 4),
                new Given("a", "x", "ann", "a1", 1, 2),
                new Given("a", "x", "ann", "a1", 2, 1)));
        assertThat(one.cells(2, 1, 1)).containsExactly(new ScoredCell("a", "x", "ann", 68.75));
    }

    @Test
    public void gradesMayComeInAnyOrder() {
        List<Given> mixed = given(2);
        List<ScoredCell> expected = sorted(gathered(mixed).cells(2, 1, 0.5));
        Collections.shuffle(mixed, new Random(1));
        List<ScoredCell> found = sorted(gathered(mixed).cells(2, 1, 0.5));
        assertThat(found).hasSameSizeAs(expected);
        for (int i = 0; i < found.size(); i++) {
            assertThat(found.get(i).prompt()).isEqualTo(expected.get(i).prompt());
            assertThat(found.get(i).score()).isCloseTo(expected.get(i).score(), within(1e-12));
        }
    }

    @DataProvider
    public Object[][] weights() {
        return new Object[][] {{new double[] {2, 1, 1}}, {new double[] {1, 0, 0}}, {new double[] {0.3, 0.1, 0.7}}};
    }

    /** Else candidates that are equal could come to lie apart by a last digit, the same way for every prompt. */
    @Test(dataProvider = "weights")
    public void weighingGivesTheVerySameScores(double[] weights) {
        GradedAnswers graded = gathered(given(1));
        ScoreGrid direct = graded.grid(weights).orElseThrow();
        ScoreGrid weighed = graded.weighing().grid(weights).orElseThrow();
        assertThat(standings(weighed)).isEqualTo(standings(direct));
    }

    private static Standings standings(ScoreGrid grid) {
        return Standings.of(grid, new Standings.Options(50, 0.95), Resamples.generator(3));
    }

    @Test
    public void aPartOfAllIsTheSame() {
        GradedAnswers graded = gathered(given(1));
        assertThat(graded.ofCandidates(List.of("a", "b", "c", "another"))).isSameAs(graded);
        assertThat(graded.weighing()).isSameAs(graded.weighing());
        assertThat(graded.ofCandidates(List.of("b")).cells(1, 1, 1).stream()
                        .map(ScoredCell::candidate)
                        .collect(Collectors.toSet()))
                .containsExactly("b");
    }

    /** Places are numbered once: a part has only those where it has scores. */
    @Test
    public void aPartHasNoCellsOfOthers() {
        GradedAnswers graded = gathered(given(1));
        assertThat(graded.ofKind("y").cells(1, 1, 1))
                .hasSize(3 * 3 * 2)
                .allSatisfy(c -> assertThat(c.prompt()).startsWith("y"));
    }

    @Test
    public void refusesALevelBeyondTheScale() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> gathered(List.of(new Given("a", "x", "ann", "a1", 0, HIGHEST + 1))))
                .withMessageContaining("level must lie in [0, 4]: 5");
    }
}
