package org.mossbank.core.generalizability;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.generalizability.GeneralizabilityStudy.Negative;
import org.mossbank.core.generalizability.GeneralizabilityStudy.Source;
import org.testng.annotations.Test;

public class GeneralizabilityStudyTest {
    private static List<ScoredCell> cells(double candidate, double prompt, double rater, double residual) {
        List<ScoredCell> cells = new ArrayList<>();
        for (int c = 0; c < 2; c++) {
            for (int p = 0; p < 2; p++) {
                for (int r = 0; r < 2; r++) {
                    double sign = (c + p + r) % 2 == 0 ? 1 : -1;
                    cells.add(new ScoredCell(
                            "c" + c, "p" + p, "r" + r, 50 + candidate * c + prompt * p + rater * r + residual * sign));
                }
            }
        }
        return cells;
    }

    @Test
    public void componentsByHand() {
        GeneralizabilityStudy study = GeneralizabilityStudy.of(cells(8, 4, 2, 1));

        // by hand: main effects of ±4, ±2, ±1 over 8 cells; the residual ±1
        assertThat(study.meanSquares().get(Source.CANDIDATE).value().orElseThrow())
                .isCloseTo(128, within(1e-9));
        assertThat(study.meanSquares().get(Source.RESIDUAL).value().orElseThrow())
                .isCloseTo(8, within(1e-9));
        assertThat(study.components().get(Source.RESIDUAL).value().orElseThrow())
                .isCloseTo(8, within(1e-9));
        // (0 - 8) / 2
        assertThat(study.components().get(Source.CANDIDATE_PROMPT).value().orElseThrow())
                .isCloseTo(-4, within(1e-9));
        // (128 - 0 - 0 + 8) / 4
        assertThat(study.components().get(Source.CANDIDATE).value().orElseThrow())
                .isCloseTo(34, within(1e-9));
        assertThat(study.freedom()).containsEntry(Source.PROMPT, 1);
    }

    @Test
    public void negativeComponentsAreSetToNothingOrKept() {
        GeneralizabilityStudy study = GeneralizabilityStudy.of(cells(8, 4, 2, 1));

        // zeroed: 34 / (34 + 8 / 4); kept: 34 / (34 - 4 / 2 - 4 / 2 + 8 / 4)
        assertThat(study.generalizability(2, 2, Negative.ZEROED).value().orElseThrow())
                .isCloseTo(34 / 36.0, within(1e-9));
        assertThat(study.generalizability(2, 2, Negative.KEPT).value().orElseThrow())
                .isCloseTo(34 / 32.0, within(1e-9));
        // prompt (32 + 8) / 4 = 10, rater (8 + 8) / 4 = 4
        assertThat(study.dependability(2, 2, Negative.ZEROED).value().orElseThrow())
                .isCloseTo(34 / (34 + 5 + 2 + 2.0), within(1e-9));
    }

    @Test
    public void aMissingCellOrASingleRaterLeavesThemUndefined() {
        List<ScoredCell> all = cells(1, 1, 1, 1);

        assertThat(GeneralizabilityStudy.of(all.subList(0, 7)).components().get(Source.CANDIDATE))
                .isEqualTo(Estimate.undefined(Reason.NOT_COMPLETE));
        GeneralizabilityStudy oneRater = GeneralizabilityStudy.of(
                all.stream().filter(c -> c.rater().equals("r0")).toList());
        assertThat(oneRater.dependability(1, 1, Negative.KEPT)).isEqualTo(Estimate.undefined(Reason.TOO_FEW_LEVELS));
        assertThat(oneRater.freedom()).isEmpty();
    }

    @Test
    public void whereAllIsAlikeNothingIsLeftToCompare() {
        assertThat(GeneralizabilityStudy.of(cells(0, 0, 0, 0)).generalizability(1, 1, Negative.ZEROED))
                .isEqualTo(Estimate.undefined(Reason.NO_VARIANCE));
    }
}
