package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.OptionalInt;
import org.testng.annotations.Test;

/** What items, repetitions and repairs come to. */
public class TrialFiguresTest {
    private static final RepeatedTrials PASSED = new RepeatedTrials(List.of(TrialOutcome.PASSED, TrialOutcome.PASSED));
    private static final RepeatedTrials FAILED = new RepeatedTrials(List.of(TrialOutcome.WRONG_OUTPUT));
    private static final RepeatedTrials FLAKY =
            new RepeatedTrials(List.of(TrialOutcome.TIMED_OUT, TrialOutcome.PASSED));

    @Test
    public void aTrialEndsAsItsWorstItem() {
        TrialSummary summary = TrialSummary.of(List.of(
                CheckItem.passed(CheckItem.Sort.BUILD, "build"),
                CheckItem.passed(CheckItem.Sort.TEST, "high"),
                CheckItem.ended(CheckItem.Sort.TEST, "low", TrialOutcome.FAILED_TESTS, "expected 1"),
                CheckItem.ended(CheckItem.Sort.RUN, "empty input", TrialOutcome.CRASHED, "ended with 1")));

        assertThat(summary).isEqualTo(new TrialSummary(TrialOutcome.CRASHED, 1, 3));
    }

    @Test
    public void nothingThatWasAskedIsNoTrial() {
        assertThatThrownBy(() -> TrialSummary.of(List.of())).isInstanceOf(IllegalArgumentException.class);
    }

    @Test
    public void oneThatPassesOnlySometimesIsFlakyAndDoesNotPass() {
        assertThat(FLAKY.isFlaky()).isTrue();
        assertThat(FLAKY.outcome()).hasValue(TrialOutcome.TIMED_OUT);
        assertThat(PASSED.isFlaky()).isFalse();
        assertThat(new RepeatedTrials(List.of(TrialOutcome.CRASHED, TrialOutcome.TIMED_OUT)).isFlaky())
                .isFalse();
        assertThat(new RepeatedTrials(List.of()).outcome()).isEmpty();
    }

    @Test
    public void worksAsIsAfterARepairOrNot() {
        assertThat(TrialStanding.of(PASSED, OptionalInt.of(1))).hasValue(new TrialStanding.AsIs());
        assertThat(TrialStanding.of(FAILED, OptionalInt.of(2))).hasValue(new TrialStanding.AfterRepair(2));
        assertThat(TrialStanding.of(FAILED, OptionalInt.empty())).hasValue(new TrialStanding.Not());
        assertThat(TrialStanding.of(FLAKY, OptionalInt.empty())).hasValue(new TrialStanding.Not());
        assertThat(TrialStanding.of(new RepeatedTrials(List.of()), OptionalInt.of(1)))
                .isEmpty();
    }

    @Test
    public void gradesAtTheEndsOfTheScaleCanContradictTrials() {
        assertThat(Contradiction.of(5, 5, FAILED)).hasValue(Contradiction.TOP_GRADE_THOUGH_IT_FAILS);
        assertThat(Contradiction.of(1, 5, PASSED)).hasValue(Contradiction.LOWEST_GRADE_THOUGH_IT_PASSES);
        assertThat(Contradiction.of(4, 5, FAILED)).isEmpty();
        assertThat(Contradiction.of(5, 5, PASSED)).isEmpty();
        assertThat(Contradiction.of(1, 5, FAILED)).isEmpty();
        assertThat(Contradiction.of(5, 5, FLAKY)).isEmpty();
        assertThatThrownBy(() -> Contradiction.of(6, 5, PASSED)).isInstanceOf(IllegalArgumentException.class);
    }
}
