package org.mossbank.core.comparison;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.function.UnaryOperator;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** What is left when one prompt goes is what would have been worked out from the others alone. */
public class ScoreGridTest {
    private static final double LEVEL = 0.95;

    @DataProvider
    public static Object[][] studies() {
        return new Object[][] {
            {"complete", 12, 4, 0.0, 3},
            {"with gaps", 15, 5, 0.3, 3},
            {"a rater of one prompt", 9, 3, 0.7, 2},
            {"kinds of one and two", 6, 3, 0.1, 5},
            {"two prompts", 2, 3, 0.0, 1},
        };
    }

    private static ScoreGrid grid(int prompts, int raters, double missing, UnaryOperator<String> kind, long seed) {
        Random random = new Random(seed);
        List<ScoredCell> cells = new ArrayList<>();
        for (int c = 0; c < 4; c++) {
            for (int p = 0; p < prompts; p++) {
                for (int r = 0; r < raters; r++) {
                    if (random.nextDouble() >= missing) {
                        cells.add(new ScoredCell("c" + c, "p" + (10 + p), "r" + r, 25 * random.nextInt(5)));
                    }
                }
            }
        }
        return ScoreGrid.of(cells, PromptGroups.byKind(kind));
    }

    @Test(dataProvider = "studies")
    public void withoutAPromptIsAsIfItHadNeverBeen(String name, int prompts, int raters, double missing, int kinds) {
        UnaryOperator<String> kind = p -> "k" + Integer.parseInt(p.substring(1)) % kinds;
        for (long seed = 0; seed < 20; seed++) {
            ScoreGrid whole = grid(prompts, raters, missing, kind, seed);
            // All pairs first, so that what is left out is left out of what is known.
            Standings.forDeciding(whole, LEVEL);
            for (String prompt : whole.prompts()) {
                var less = whole.without(prompt);
                var fewer = whole.keeping((p, r) -> !p.equals(prompt));
                assertThat(less.isPresent()).isEqualTo(fewer.isPresent());
                if (less.isPresent()) {
                    alike(Standings.forDeciding(less.get(), LEVEL), Standings.forDeciding(fewer.orElseThrow(), LEVEL));
                }
            }
        }
    }

    private static void alike(Standings left, Standings anew) {
        assertThat(left.differences()).hasSameSizeAs(anew.differences());
        IntStream.range(0, left.differences().size()).forEach(i -> {
            Difference a = left.differences().get(i);
            Difference b = anew.differences().get(i);
            assertThat(a.higher() + a.lower()).isEqualTo(b.higher() + b.lower());
            assertThat(a.estimate().value().orElse(0))
                    .isCloseTo(b.estimate().value().orElse(0), within(1e-9));
            assertThat(a.standardError().value().orElse(-1))
                    .isCloseTo(b.standardError().value().orElse(-1), within(1e-9));
            assertThat(a.freedom()).isCloseTo(b.freedom(), within(1e-6));
        });
        IntStream.range(0, left.standings().size())
                .forEach(i -> assertThat(
                                left.standings().get(i).adjusted().value().orElse(-1))
                        .isCloseTo(anew.standings().get(i).adjusted().value().orElse(-1), within(1e-9)));
    }

    /** Wordings of one prompt share cells; one that goes leaves the others. */
    @Test
    public void aWordingMayGoAndLeaveItsFamily() {
        Random random = new Random(3);
        List<ScoredCell> cells = new ArrayList<>();
        for (int c = 0; c < 3; c++) {
            for (int p = 0; p < 8; p++) {
                for (int r = 0; r < 3; r++) {
                    cells.add(new ScoredCell("c" + c, "p" + p, "r" + r, 25 * random.nextInt(5)));
                }
            }
        }
        ScoreGrid whole = ScoreGrid.of(cells, new PromptGroups(p -> "k", p -> p.equals("p6") ? "p1" : p));
        for (String prompt : whole.prompts()) {
            alike(
                    Standings.forDeciding(whole.without(prompt).orElseThrow(), LEVEL),
                    Standings.forDeciding(
                            whole.keeping((p, r) -> !p.equals(prompt)).orElseThrow(), LEVEL));
        }
    }

    @Test
    public void otherScoresAtTheSamePlacesAreReadAnew() {
        ScoreGrid first = grid(8, 3, 0.2, p -> "k", 1);
        Standings.forDeciding(first, LEVEL);
        double[][] other = new double[first.candidates().size()][first.places()];
        Random random = new Random(9);
        for (double[] row : other) {
            for (int i = 0; i < row.length; i++) {
                row[i] = 25 * random.nextInt(5);
            }
        }
        List<ScoredCell> cells = new ArrayList<>();
        for (int c = 0; c < other.length; c++) {
            for (int place = 0; place < first.places(); place++) {
                if (first.has(c, place)) {
                    cells.add(new ScoredCell(
                            first.candidates().get(c),
                            first.prompts().get(first.promptOf(place)),
                            first.raters().get(first.raterOf(place)),
                            other[c][place]));
                }
            }
        }
        alike(
                Standings.forDeciding(first.with(other), LEVEL),
                Standings.forDeciding(ScoreGrid.of(cells, PromptGroups.byKind(p -> "k")), LEVEL));
    }
}
