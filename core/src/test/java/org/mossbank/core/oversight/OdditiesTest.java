package org.mossbank.core.oversight;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalLong;
import java.util.SplittableRandom;
import org.testng.annotations.Test;

public class OdditiesTest {
    private static GradedSheet sheet(String rater, int place, long activeMs, int explained, int... levels) {
        List<GradedSheet.SheetGrade> grades = new ArrayList<>();
        for (int i = 0; i < levels.length; i++) {
            grades.add(new GradedSheet.SheetGrade(place + "/" + i, levels[i], 4));
        }
        return new GradedSheet(
                rater,
                place,
                1_200,
                activeMs == 0 ? OptionalLong.empty() : OptionalLong.of(activeMs),
                levels.length,
                explained,
                grades);
    }

    @Test
    public void fasterThanReadingIsTold() {
        // by hand: 1,200 characters at 120 a second are 10 s
        var odd = Oddities.in(
                List.of(sheet("ida", 1, 9_999, 1, 2), sheet("ida", 2, 10_000, 1, 2), sheet("ida", 3, 0, 1, 2)));

        assertThat(odd.get("ida")).containsExactly(new Oddity.TooFast(List.of(new Oddity.FastSheet(1, 9_999, 10_000))));
    }

    @Test
    public void oneLevelEverywhereIsToldWhereOthersTellAnswersApart() {
        List<GradedSheet> sheets = new ArrayList<>();
        for (int place = 1; place <= 3; place++) {
            sheets.add(sheet("ida", place, 0, 4, 3, 3, 3, 3));
            sheets.add(sheet("noor", place, 0, 4, 1, 3, 4, 2));
        }

        assertThat(Oddities.in(sheets))
                .containsOnlyKeys("ida")
                .containsValue(List.of(new Oddity.SameLevel(3, 12, 1.0, 0.25)));
    }

    /** If the others give that level too, the answers are alike and not the rater lazy. */
    @Test
    public void oneLevelEverywhereIsOrdinaryWhereAllGiveIt() {
        List<GradedSheet> sheets = new ArrayList<>();
        for (int place = 1; place <= 3; place++) {
            sheets.add(sheet("ida", place, 0, 4, 4, 4, 4, 4));
            sheets.add(sheet("noor", place, 0, 4, 4, 4, 4, place == 1 ? 3 : 4));
        }
        assertThat(Oddities.in(sheets)).isEmpty();
    }

    @Test
    public void silenceIsToldWhereOthersExplain() {
        List<GradedSheet> sheets = List.of(
                sheet("ida", 1, 0, 0, 1, 2, 3), sheet("ida", 2, 0, 0, 3, 1, 2),
                sheet("noor", 1, 0, 2, 1, 2, 3), sheet("noor", 2, 0, 1, 2, 1, 3));

        assertThat(Oddities.in(sheets)).containsOnlyKeys("ida").containsValue(List.of(new Oddity.NoReasons(6, 0.5)));
    }

    @Test
    public void anotherYardstickLaterThanAtFirstIsTold() {
        List<GradedSheet> sheets = new ArrayList<>();
        for (int place = 1; place <= 8; place++) {
            int shift = place <= 4 ? 1 : -1;
            sheets.add(sheet("ida", place, 0, 3, 2 + shift, 1 + shift, 3 + shift));
            sheets.add(sheet("noor", place, 0, 3, 2, 1, 3));
        }
        var odd = Oddities.in(sheets);

        // by hand: one level above, then one below, without any spread
        Oddity.Drift ida = (Oddity.Drift) odd.get("ida").get(0);
        assertThat(ida.first()).isEqualTo(1, within(1e-12));
        assertThat(ida.second()).isEqualTo(-1, within(1e-12));
        assertThat(ida.t()).isEmpty();
    }

    @Test
    public void welchIsAsByHand() {
        List<GradedSheet> sheets = new ArrayList<>();
        int[][] first = {{3, 2, 3}, {2, 3, 3}};
        int[][] second = {{1, 2, 1}, {1, 1, 0}};
        for (int i = 0; i < 2; i++) {
            sheets.add(sheet("ida", i + 1, 0, 3, first[i]));
            sheets.add(sheet("ida", i + 3, 0, 3, second[i]));
            sheets.add(sheet("noor", i + 1, 0, 3, 2, 2, 2));
            sheets.add(sheet("noor", i + 3, 0, 3, 2, 2, 2));
        }

        Oddity.Drift drift = (Oddity.Drift) Oddities.in(sheets).get("ida").get(0);

        // by hand: distances 1,0,1,0,1,1 (mean 2/3, variance 4/15) and -1,0,-1,-1,-1,-2 (mean -1, variance 2/5);
        // t = (-1 - 2/3) / sqrt((4/15 + 2/5) / 6) = -(5/3) / (1/3) = -5
        assertThat(drift.t().orElseThrow()).isEqualTo(-5, within(1e-12));
    }

    /** On made-up raters who judge alike, hardly anybody is told to drift. */
    @Test
    public void ordinaryRatersAreLeftInPeace() {
        SplittableRandom random = new SplittableRandom(20261126);
        int told = 0;
        int raters = 0;
        for (int round = 0; round < 100; round++) {
            List<GradedSheet> sheets = new ArrayList<>();
            for (int place = 1; place <= 12; place++) {
                int[] truth = random.ints(4, 1, 4).toArray();
                for (String rater : List.of("ida", "noor", "sel")) {
                    int[] levels = new int[4];
                    for (int i = 0; i < 4; i++) {
                        levels[i] = Math.min(4, Math.max(0, truth[i] + random.nextInt(-1, 2)));
                    }
                    sheets.add(sheet(rater, place, 60_000, 2, levels));
                }
            }
            told += Oddities.in(sheets).size();
            raters += 3;
        }
        assertThat(told).isLessThanOrEqualTo(raters / 50);
    }

    @Test
    public void thePaceIsTheMedianAndLeavesOutWhatWasNotMeasured() {
        List<GradedSheet> done = List.of(
                sheet("ida", 1, 20_000, 0, 1, 1),
                sheet("ida", 2, 60_000, 0, 1, 1),
                sheet("ida", 3, 900_000, 0, 1),
                sheet("ida", 4, 0, 0, 1));

        // by hand: 10, 30 and 900 s an answer; the median is 30 s, and 7 answers take 210 s
        assertThat(Pace.left(done, 7)).hasValue(210_000);
        // by hand: with two sheets, half way between 10 and 30 s
        assertThat(Pace.left(done.subList(0, 2), 1)).hasValue(20_000);
        assertThat(Pace.left(List.of(sheet("ida", 1, 0, 0, 1)), 7)).isEmpty();
        assertThat(Pace.left(done, 0)).hasValue(0);
    }

    @Test
    public void refusesCountsThatCannotBe() {
        assertThatThrownBy(() -> sheet("ida", 0, 1, 0)).hasMessage("place must be at least 1: 0");
        assertThatThrownBy(() -> sheet("ida", 1, 1, 3, 1)).hasMessage("explained must be 0 to answers: 3");
    }
}
