package org.mossbank.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class ConcordanceTest {
    private static ScoreTable.Score score(String unit, String rater, double value) {
        return new ScoreTable.Score(unit, rater, value);
    }

    @Test
    public void oppositeOrdersDoNotConcur() {
        Concordance concordance = Concordance.of(
                ScoreTable.of(List.of(score("a", "r", 1), score("b", "r", 2), score("a", "s", 7), score("b", "s", 5))));

        assertThat(concordance.w()).isEqualTo(Estimate.of(0));
        assertThat(concordance.freedom()).hasValue(1);
        assertThat(concordance.p().value().orElseThrow()).isCloseTo(1, within(1e-12));
    }

    @Test
    public void oneOrderConcursFully() {
        Concordance concordance = Concordance.of(ScoreTable.of(List.of(
                score("a", "r", 1),
                score("b", "r", 2),
                score("c", "r", 3),
                score("a", "s", 10),
                score("b", "s", 20),
                score("c", "s", 90))));

        assertThat(concordance.w().value().orElseThrow()).isCloseTo(1, within(1e-12));
        // m (n - 1) W
        assertThat(concordance.chiSquared().value().orElseThrow()).isCloseTo(4, within(1e-12));
    }

    @Test
    public void oneUnitHasNoOrder() {
        Concordance concordance = Concordance.of(ScoreTable.of(List.of(score("a", "r", 1), score("a", "s", 7))));

        assertThat(concordance.w()).isEqualTo(Estimate.undefined(Reason.TOO_FEW_COMPLETE));
        assertThat(concordance.freedom()).isEmpty();
        assertThat(concordance.raters()).isEqualTo(2);
    }
}
