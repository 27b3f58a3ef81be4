package org.mossbank.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.List;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class FleissKappaTest {
    private static final double TOLERANCE = 1e-12;

    /** Rows of levels, one a unit; -1 is no grade. */
    private static RatingMatrix matrix(int[]... rows) {
        List<Rating> ratings = new ArrayList<>();
        for (int u = 0; u < rows.length; u++) {
            for (int r = 0; r < rows[u].length; r++) {
                if (rows[u][r] >= 0) {
                    ratings.add(new Rating("u" + u, "r" + r, rows[u][r]));
                }
            }
        }
        return RatingMatrix.ofLevels(ratings, 2);
    }

    @Test
    public void threeRatersByHand() {
        FleissKappa fleiss = FleissKappa.of(matrix(new int[] {0, 0, 1}, new int[] {1, 1, 1}));

        // by hand: units agree in 1/3 and 3/3 of pairs; shares 1/3 and 2/3
        assertThat(fleiss.observed().value().orElseThrow()).isCloseTo(2 / 3.0, within(TOLERANCE));
        assertThat(fleiss.chance().value().orElseThrow()).isCloseTo(5 / 9.0, within(TOLERANCE));
        assertThat(fleiss.kappa().value().orElseThrow()).isCloseTo(0.25, within(TOLERANCE));
        // With two levels in use each one's kappa is the whole one's.
        assertThat(fleiss.byLevel().get(0).value().orElseThrow()).isCloseTo(0.25, within(TOLERANCE));
        assertThat(fleiss.byLevel().get(1).value().orElseThrow()).isCloseTo(0.25, within(TOLERANCE));
        assertThat(fleiss.byLevel().get(2)).isEqualTo(Estimate.undefined(Reason.LEVEL_NOT_USED));
        // With two levels p q = 2/9 each: variance 2 (16/81 - 0) / (12 × 16/81) = 1/6
        assertThat(fleiss.standardErrorIfChance().value().orElseThrow())
                .isCloseTo(Math.sqrt(1 / 6.0), within(TOLERANCE));
        assertThat(fleiss.levelStandardErrorIfChance().value().orElseThrow())
                .isCloseTo(Math.sqrt(1 / 6.0), within(TOLERANCE));
    }

    @Test
    public void unequalNumbersLeaveItUndefinedButForCompleteUnits() {
        RatingMatrix matrix = matrix(new int[] {0, 0, 1}, new int[] {1, 1, 1}, new int[] {2, -1, -1});

        FleissKappa whole = FleissKappa.of(matrix);
        FleissKappa complete = FleissKappa.ofCompleteUnits(matrix);

        assertThat(whole.units()).isEqualTo(3);
        assertThat(whole.kappa()).isEqualTo(Estimate.undefined(Reason.UNEQUAL_NUMBERS));
        assertThat(complete.units()).isEqualTo(2);
        assertThat(complete.kappa().value().orElseThrow()).isCloseTo(0.25, within(TOLERANCE));
        // by hand: observed 2/3; shares (2/9, 4/9, 1/3), squares 29/81: (54 - 29) / (81 - 29)
        assertThat(whole.generalized().value().orElseThrow()).isCloseTo(25 / 52.0, within(TOLERANCE));
    }

    @Test
    public void oneGradeEachIsNoAgreement() {
        FleissKappa fleiss = FleissKappa.of(matrix(new int[] {0, -1, -1}, new int[] {1, -1, -1}));

        assertThat(fleiss.kappa()).isEqualTo(Estimate.undefined(Reason.NO_PAIRS));
        assertThat(fleiss.generalized()).isEqualTo(Estimate.undefined(Reason.NO_PAIRS));
    }

    @Test
    public void oneLevelAloneHasNoKappa() {
        FleissKappa fleiss = FleissKappa.of(matrix(new int[] {1, 1, 1}, new int[] {1, 1, 1}));

        assertThat(fleiss.observed().value().orElseThrow()).isEqualTo(1);
        assertThat(fleiss.kappa()).isEqualTo(Estimate.undefined(Reason.ONE_LEVEL_ONLY));
        assertThat(fleiss.standardErrorIfChance()).isEqualTo(Estimate.undefined(Reason.ONE_LEVEL_ONLY));
        assertThat(fleiss.generalized()).isEqualTo(Estimate.undefined(Reason.ONE_LEVEL_ONLY));
    }
}
