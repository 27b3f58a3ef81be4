package org.mossbank.core.rubric;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.util.List;
import org.testng.annotations.Test;

public class OverallScoreTest {
    @Test
    public void weighsEachCriterionOnItsOwnScale() {
        // By hand: 100 * (0.5 * 3/4 + 0.25 * 1/1 + 0.25 * 0/2) = 62.5
        assertThat(OverallScore.of(List.of(
                        CriterionGrade.of(0.5, 3, 4), CriterionGrade.of(0.25, 1, 1), CriterionGrade.of(0.25, 0, 2))))
                .hasValue(62.5);
    }

    @Test
    public void otherWeightsMakeUpForWhatWasNotApplicable() {
        assertThat(OverallScore.of(List.of(CriterionGrade.of(0.5, 3, 4), CriterionGrade.of(0.25, 4, 4))))
                .hasValue(100 * (0.5 * 0.75 + 0.25) / 0.75);
    }

    @Test
    public void noScoreWithoutGradeOrWeight() {
        assertThat(OverallScore.of(List.of())).isEmpty();
        assertThat(OverallScore.of(List.of(CriterionGrade.of(0, 3, 4)))).isEmpty();
    }

    @Test
    public void refusesLevelsOutsideTheScale() {
        assertThatIllegalArgumentException().isThrownBy(() -> CriterionGrade.of(1, 5, 4));
        assertThatIllegalArgumentException().isThrownBy(() -> CriterionGrade.of(-1, 1, 4));
        assertThatIllegalArgumentException().isThrownBy(() -> CriterionGrade.of(Double.NaN, 1, 4));
    }

    @Test
    public void aGateCapsTheWholeAnswer() {
        Gate gate = new Gate(1, 40);
        // By hand: 100 * (0.5 * 1/4 + 0.5 * 4/4) = 62.5, capped at 40.
        assertThat(OverallScore.of(List.of(gate.apply(CriterionGrade.of(0.5, 1, 4)), CriterionGrade.of(0.5, 4, 4))))
                .hasValue(40);
        assertThat(OverallScore.of(List.of(gate.apply(CriterionGrade.of(0.5, 2, 4)), CriterionGrade.of(0.5, 4, 4))))
                .hasValue(75);
        // A score below the cap stays.
        assertThat(OverallScore.of(List.of(gate.apply(CriterionGrade.of(1, 0, 4)))))
                .hasValue(0);
    }

    @Test
    public void theLowestCapCounts() {
        CriterionGrade both = new Gate(2, 30).apply(new Gate(2, 50).apply(CriterionGrade.of(0, 1, 4)));
        assertThat(both.cap()).isEqualTo(30);
        assertThat(OverallScore.of(List.of(both, CriterionGrade.of(1, 4, 4)))).hasValue(30);
    }

    @Test
    public void refusesGatesOutOfRange() {
        assertThatIllegalArgumentException().isThrownBy(() -> new Gate(-1, 40));
        assertThatIllegalArgumentException().isThrownBy(() -> new Gate(1, 101));
        assertThatIllegalArgumentException().isThrownBy(() -> new Gate(1, Double.NaN));
    }
}
