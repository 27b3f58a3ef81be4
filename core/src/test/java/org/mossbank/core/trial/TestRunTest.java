package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Set;
import org.testng.annotations.Test;

public class TestRunTest {
    private static final TestRun TAP = new TestRun(TestRun.Format.TAP, "");
    private static final TestRun XML = new TestRun(TestRun.Format.JUNIT_XML, "reports");

    private static RunEnd end(RunEnd.End how, int status, String output, Map<String, String> files) {
        return new RunEnd(how, status, output, "", files, Set.of());
    }

    @Test
    public void eachTestIsAnItemAndSkippedOnesAreNone() {
        List<CheckItem> items =
                TAP.judge(end(RunEnd.End.BY_ITSELF, 1, "ok 1 - high\nnot ok 2 - low\nok 3 - later # SKIP\n", Map.of()));

        assertThat(items).extracting(CheckItem::name).containsExactly("high", "low");
        assertThat(TrialSummary.of(items)).isEqualTo(new TrialSummary(TrialOutcome.FAILED_TESTS, 1, 2));
    }

    @Test
    public void reportsOfAFolderAreReadTogether() {
        List<CheckItem> items = XML.judge(end(
                RunEnd.End.BY_ITSELF,
                0,
                "",
                Map.of(
                        "reports/TEST-a.xml", "<testsuite><testcase name=\"a\"/></testsuite>",
                        "reports/TEST-b.xml", "<testsuite><testcase name=\"b\"/></testsuite>",
                        "reports/notes.txt", "none",
                        "Main.java", "")));

        assertThat(items).extracting(CheckItem::name).containsExactly("a", "b");
    }

    @Test
    public void withoutAReportNothingHasPassed() {
        assertThat(XML.judge(end(RunEnd.End.BY_ITSELF, 0, "", Map.of())))
                .singleElement()
                .satisfies(i -> {
                    assertThat(i.outcome()).isEqualTo(TrialOutcome.CRASHED);
                    assertThat(i.why()).isEqualTo("no report can be read: there is no reports");
                });
        assertThat(XML.judge(end(RunEnd.End.TIMED_OUT, 137, "", Map.of())))
                .extracting(CheckItem::outcome)
                .containsExactly(TrialOutcome.TIMED_OUT);
    }

    @Test
    public void aReportWithoutATestHasNotPassed() {
        assertThat(XML.judge(end(RunEnd.End.BY_ITSELF, 0, "", Map.of("reports/a.xml", "<testsuite/>"))))
                .extracting(CheckItem::why)
                .containsExactly("no test was run");
    }

    /** Tests that were told to have passed before the program was ended, or ended ill, are not all. */
    @Test
    public void whatEndsIllHasNotPassedWhateverItsReportSays() {
        assertThat(TrialSummary.of(TAP.judge(end(RunEnd.End.TIMED_OUT, 137, "ok 1 - high\n", Map.of())))
                        .outcome())
                .isEqualTo(TrialOutcome.TIMED_OUT);
        assertThat(TrialSummary.of(TAP.judge(end(RunEnd.End.BY_ITSELF, 134, "ok 1 - high\n", Map.of())))
                        .outcome())
                .isEqualTo(TrialOutcome.CRASHED);
    }
}
