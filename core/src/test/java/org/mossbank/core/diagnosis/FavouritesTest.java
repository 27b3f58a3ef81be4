package org.mossbank.core.diagnosis;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class FavouritesTest {
    private static final List<String> CANDIDATES = List.of("a", "b", "c");

    /** Everybody gives 50, and so many points more to their own favourite. */
    private static List<ScoredCell> cells(Map<String, String> favourites, int prompts, double more) {
        List<ScoredCell> cells = new ArrayList<>();
        for (int p = 0; p < prompts; p++) {
            for (Map.Entry<String, String> rater : favourites.entrySet()) {
                for (String c : CANDIDATES) {
                    cells.add(new ScoredCell(c, "p" + p, rater.getKey(), c.equals(rater.getValue()) ? 50 + more : 50));
                }
            }
        }
        return cells;
    }

    private static Favourites of(Map<String, String> favourites, double more) {
        return Favourites.of(cells(favourites, 4, more), favourites, new SplittableRandom(1));
    }

    @Test
    public void threeRatersEachForTheirOwn() {
        Favourites found = of(Map.of("r", "a", "s", "b", "t", "c"), 10);
        // By hand: own contrast 10; of the two others 0 - (10 + 0) / 2 = -5 each, so 15 higher. One of six deals is as
        // much.
        assertThat(found.raters()).isEqualTo(3);
        assertThat(found.higher().mean().value().orElseThrow()).isCloseTo(15, within(1e-9));
        assertThat(found.p().value().orElseThrow()).isCloseTo(1.0 / 6, within(1e-12));
    }

    @Test
    public void whereNobodyFavoursAnythingEveryDealIsAsMuch() {
        Favourites found = of(Map.of("r", "a", "s", "b", "t", "c"), 0);
        assertThat(found.higher().mean().value().orElseThrow()).isCloseTo(0, within(1e-12));
        assertThat(found.p()).isEqualTo(Estimate.of(1));
    }

    @Test
    public void oneFavouriteOfAllSaysNothing() {
        assertThat(of(Map.of("r", "a", "s", "a"), 10).p()).isEqualTo(Estimate.undefined(Reason.TOO_FEW_LEVELS));
    }

    @Test
    public void aStrictRaterIsNoEnemy() {
        Map<String, String> favourites = Map.of("r", "a", "s", "b", "t", "c");
        List<ScoredCell> strict = cells(favourites, 4, 10).stream()
                .map(c -> c.rater().equals("r")
                        ? new ScoredCell(c.candidate(), c.prompt(), c.rater(), c.score() - 30)
                        : c)
                .toList();
        assertThat(Favourites.of(strict, favourites, new SplittableRandom(1))
                        .higher()
                        .mean()
                        .value()
                        .orElseThrow())
                .isCloseTo(15, within(1e-9));
    }

    @Test
    public void manyRatersAreDealtAtRandomAndFoundOut() {
        Map<String, String> favourites = new TreeMap<>();
        for (int i = 0; i < 12; i++) {
            favourites.put("r" + i, CANDIDATES.get(i % 3));
        }
        Favourites found = of(favourites, 10);
        assertThat(found.raters()).isEqualTo(12);
        // 12! / (4!)^3 = 34,650 deals differ, so 1 in 34,650 is as much: at most a few of 10,000 draws.
        assertThat(found.p().value().orElseThrow()).isLessThan(0.002);
        assertThat(of(favourites, 0).p()).isEqualTo(Estimate.of(1));
    }

    @Test
    public void whoGradedAloneCannotBeCompared() {
        Favourites found = Favourites.of(cells(Map.of("r", "a"), 3, 10), Map.of("r", "a"), new SplittableRandom(1));
        assertThat(found.raters()).isZero();
        assertThat(found.higher().mean()).isEqualTo(Estimate.undefined(Reason.NO_DATA));
    }
}
