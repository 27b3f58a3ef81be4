package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class CheckRunTest {
    private static final RunEnd.End BY_ITSELF = RunEnd.End.BY_ITSELF;

    private static RunEnd wrote(String output) {
        return new RunEnd(BY_ITSELF, 0, output, "", Map.of(), Set.of());
    }

    private static RunEnd left(Map<String, String> files, String... changed) {
        return new RunEnd(BY_ITSELF, 0, "", "", files, Set.of(changed));
    }

    private static final CheckRun HIGH = new CheckRun(
            "spring tide",
            0,
            Optional.of(ExpectedText.exactly("high\n")),
            Map.of(),
            List.of(),
            CheckRun.Elsewhere.ALLOWED);
    private static final CheckRun FILES = new CheckRun(
            "log",
            0,
            Optional.empty(),
            Map.of("log.txt", ExpectedText.exactly("a")),
            List.of("old.txt"),
            CheckRun.Elsewhere.FORBIDDEN);

    @DataProvider
    public Object[][] ends() {
        return new Object[][] {
            {"as it must", HIGH, wrote("high\n"), TrialOutcome.PASSED, ""},
            {"otherwise", HIGH, wrote("low\n"), TrialOutcome.WRONG_OUTPUT, "of its output line 1 reads otherwise"},
            {
                "a status",
                HIGH,
                new RunEnd(BY_ITSELF, 1, "high\n", "boom", Map.of(), Set.of()),
                TrialOutcome.CRASHED,
                "it ended with 1, not with 0"
            },
            {
                "too little memory by its word",
                HIGH,
                new RunEnd(BY_ITSELF, 1, "", "Exception: java.lang.OutOfMemoryError: heap", Map.of(), Set.of()),
                TrialOutcome.OUT_OF_MEMORY,
                "it wanted more memory than it may hold"
            },
            {
                "too late",
                HIGH,
                new RunEnd(RunEnd.End.TIMED_OUT, 137, "high\n", "", Map.of(), Set.of()),
                TrialOutcome.TIMED_OUT,
                "its time was over"
            },
            {
                "too much",
                HIGH,
                new RunEnd(RunEnd.End.WROTE_TOO_MUCH, 0, "high\n", "", Map.of(), Set.of()),
                TrialOutcome.CRASHED,
                "it wrote more than it may, and was ended"
            },
            {
                "broke out of its round",
                HIGH,
                new RunEnd(RunEnd.End.BROKE_ITS_BOX, 137, "", "", Map.of(), Set.of()),
                TrialOutcome.CRASHED,
                "it ended what it ran in"
            },
            {
                "files as they must be",
                FILES,
                left(Map.of("log.txt", "a\n", "Main.java", "x"), "log.txt"),
                TrialOutcome.PASSED,
                ""
            },
            {"a file less", FILES, left(Map.of()), TrialOutcome.WRONG_OUTPUT, "log.txt is not there"},
            {
                "a file otherwise",
                FILES,
                left(Map.of("log.txt", "b")),
                TrialOutcome.WRONG_OUTPUT,
                "of log.txt line 1 reads otherwise"
            },
            {
                "a file that should be gone",
                FILES,
                left(Map.of("log.txt", "a", "old.txt", "o")),
                TrialOutcome.WRONG_OUTPUT,
                "old.txt is still there"
            },
            {
                "a file that nobody asked for",
                FILES,
                left(Map.of("log.txt", "a", "x", "y"), "log.txt", "x"),
                TrialOutcome.WRONG_OUTPUT,
                "it wrote x, which nobody asked for"
            },
        };
    }

    @Test(dataProvider = "ends")
    public void tellsTheFirstThingThatIsNotAsItMustBe(
            String name, CheckRun run, RunEnd end, TrialOutcome outcome, String why) {
        CheckItem item = run.judge(end);

        assertThat(item.outcome()).as(name).isEqualTo(outcome);
        assertThat(item.why()).as(name).isEqualTo(why);
        assertThat(item.name()).isEqualTo(run.name());
    }

    @Test
    public void whatWasExpectedStandsBesideWhatCame() {
        assertThat(HIGH.judge(wrote("low\n"))).satisfies(i -> {
            assertThat(i.expected()).isEqualTo("high\n");
            assertThat(i.came()).isEqualTo("low\n");
        });
    }

    @Test
    public void aBuildThatDoesNotEndWellHasNotCompiled() {
        assertThat(BuildEnd.judge(wrote("")).outcome()).isEqualTo(TrialOutcome.PASSED);
        assertThat(BuildEnd.judge(new RunEnd(BY_ITSELF, 1, "", "", Map.of(), Set.of()))
                        .outcome())
                .isEqualTo(TrialOutcome.DID_NOT_COMPILE);
        assertThat(BuildEnd.judge(new RunEnd(RunEnd.End.TIMED_OUT, 137, "", "", Map.of(), Set.of())))
                .satisfies(i -> {
                    assertThat(i.outcome()).isEqualTo(TrialOutcome.DID_NOT_COMPILE);
                    assertThat(i.why()).contains("time was over");
                });
    }
}
