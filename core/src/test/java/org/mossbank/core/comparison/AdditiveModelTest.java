package org.mossbank.core.comparison;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class AdditiveModelTest {
    private static final PromptGroups ONE_KIND = PromptGroups.byKind(prompt -> "");

    private static List<ScoredCell> cells(int prompts, int raters, double missing, Random random) {
        List<ScoredCell> cells = new ArrayList<>();
        for (int c = 0; c < 4; c++) {
            for (int p = 0; p < prompts; p++) {
                for (int r = 0; r < raters; r++) {
                    if (random.nextDouble() >= missing) {
                        cells.add(new ScoredCell("c" + c, "p" + p, "r" + r, 100 * random.nextDouble()));
                    }
                }
            }
        }
        return cells;
    }

    private static AdditiveModel model(List<ScoredCell> cells) {
        return new AdditiveModel(ScoreGrid.of(cells, ONE_KIND));
    }

    @DataProvider
    public Object[][] shapes() {
        return new Object[][] {
            {"more prompts than raters", 9, 4, 0.3}, {"more raters than prompts", 3, 8, 0.3}, {"complete", 5, 5, 0.0}
        };
    }

    @Test(dataProvider = "shapes")
    public void sweepingGivesTheMeansOfTheWholeSystem(String name, int prompts, int raters, double missing) {
        Random random = new Random(5);
        List<ScoredCell> cells = cells(prompts, raters, missing, random);
        Design whole = new Design(cells);
        for (int draw = 0; draw < 50; draw++) {
            // Every level keeps a score of weight: of others the two make different averages, as they should.
            double[] ofPrompts = random.doubles(prompts, 0.5, 2).toArray();
            double[] ofRaters = random.doubles(raters, 0.5, 2).toArray();
            double[] swept = model(cells).means(ofPrompts, ofRaters).orElseThrow();
            assertThat(swept)
                    .containsExactly(whole.weightedMeans(ofPrompts, ofRaters).orElseThrow(), within(1e-9));
        }
    }

    @Test
    public void whatHasNoWeightIsAsIfItWereNotThere() {
        List<ScoredCell> cells = cells(6, 4, 0, new Random(6));
        List<ScoredCell> fewer = cells.stream()
                .filter(c -> !c.prompt().equals("p5") && !c.rater().equals("r3"))
                .toList();

        double[] without = model(cells)
                .means(new double[] {1, 1, 1, 1, 1, 0}, new double[] {1, 1, 1, 0})
                .orElseThrow();

        assertThat(without).containsExactly(model(fewer).means().orElseThrow(), within(1e-9));
    }

    @Test
    public void aPromptWhoseRatersWereNotDrawnCountsNowhere() {
        List<ScoredCell> cells = new ArrayList<>(cells(4, 3, 0, new Random(7)));
        List<ScoredCell> before = List.copyOf(cells);
        for (int c = 0; c < 4; c++) {
            cells.add(new ScoredCell("c" + c, "p9", "r9", 0));
        }

        double[] drawn = model(cells)
                .means(new double[] {1, 1, 1, 1, 3}, new double[] {1, 1, 1, 0})
                .orElseThrow();

        assertThat(drawn).containsExactly(model(before).means().orElseThrow(), within(1e-9));
    }

    @Test
    public void whatIsNotConnectedIsNotDefined() {
        // Each rater alone with prompts of its own: strict raters and hard prompts cannot be told apart.
        List<ScoredCell> apart = new ArrayList<>();
        for (int p = 0; p < 6; p++) {
            for (int c = 0; c < 3; c++) {
                apart.add(new ScoredCell("c" + c, "p" + p, "r" + p % 2, 10.0 * c + p));
            }
        }
        assertThat(model(apart).means()).isEqualTo(Optional.empty());
    }
}
