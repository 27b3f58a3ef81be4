package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.tuple;

import java.util.List;
import java.util.Set;
import org.testng.annotations.Test;

public class BeforeAndAfterTest {
    private static CheckItem passed(String name) {
        return CheckItem.passed(CheckItem.Sort.TEST, name);
    }

    private static CheckItem failed(String name) {
        return CheckItem.ended(CheckItem.Sort.TEST, name, TrialOutcome.FAILED_TESTS, "no");
    }

    @Test
    public void eachTestIsToldByHowItEndedBefore() {
        List<CheckItem> told = BeforeAndAfter.told(
                List.of(passed("kept"), failed("mended"), passed("broken"), failed("left"), passed("gone")),
                List.of(passed("kept"), passed("mended"), failed("broken"), failed("left"), passed("added")),
                Set.of());

        assertThat(told)
                .extracting(CheckItem::name, CheckItem::change)
                .containsExactly(
                        tuple("kept", TestChange.STILL_PASSES),
                        tuple("mended", TestChange.MENDED),
                        tuple("broken", TestChange.BROKEN),
                        tuple("left", TestChange.STILL_FAILS),
                        tuple("added", TestChange.NEW),
                        tuple("gone", TestChange.BROKEN));
        assertThat(told.get(5).why()).isEqualTo("it is not run any more");
        assertThat(TrialSummary.of(told)).isEqualTo(new TrialSummary(TrialOutcome.FAILED_TESTS, 3, 6));
    }

    /** Where the check names what must be mended, what failed before and is not named is no fault of the answer. */
    @Test
    public void whatIsNotWantedMayGoOnFailing() {
        List<CheckItem> told = BeforeAndAfter.told(
                List.of(failed("wanted"), failed("old trouble"), failed("gone trouble")),
                List.of(passed("wanted"), failed("old trouble")),
                Set.of("wanted"));

        assertThat(told).extracting(CheckItem::change).containsExactly(TestChange.MENDED, TestChange.MAY_FAIL);
        assertThat(TrialSummary.of(told)).isEqualTo(new TrialSummary(TrialOutcome.PASSED, 1, 1));
        assertThat(TrialSummary.of(BeforeAndAfter.told(List.of(failed("wanted")), List.of(), Set.of("wanted"))))
                .as("one that is wanted must be run")
                .isEqualTo(new TrialSummary(TrialOutcome.FAILED_TESTS, 0, 1));
    }

    @Test
    public void severalOfOneNameAreToldApartByTheirOrder() {
        assertThat(BeforeAndAfter.told(
                        List.of(passed("same"), failed("same")), List.of(passed("same"), passed("same")), Set.of()))
                .extracting(CheckItem::change)
                .containsExactly(TestChange.STILL_PASSES, TestChange.MENDED);
    }

    /** As where the repository does not build before the answer. */
    @Test
    public void withoutTestsBeforeAllAreNew() {
        assertThat(BeforeAndAfter.told(List.of(), List.of(passed("one")), Set.of()))
                .extracting(CheckItem::change)
                .containsExactly(TestChange.NEW);
    }
}
