package org.mossbank.core.trial;

import java.util.ArrayList;
import java.util.List;
import java.util.TreeMap;

/**
 * What a test command comes to, by the reports that it leaves.
 *
 * @param format  of the reports
 * @param reports the file, or the folder whose files are reports; empty if the standard output is the report
 */
public record TestRun(Format format, String reports) {
    private static final String NAME = "tests";

    /** An open format of test reports. */
    public enum Format {
        JUNIT_XML,
        TAP
    }

    /**
     * A program that was ended has not passed, whatever its reports say so far; one that ends ill though all its tests passed has not
     * either.
     *
     * @return an item for each test that was not skipped, or one that says why there is none
     */
    public List<CheckItem> judge(RunEnd end) {
        List<CheckItem> items = new ArrayList<>();
        CheckItem ended = CheckRun.endsWell(NAME).judge(end);
        try {
            for (TestResult test : read(end)) {
                if (test.end() != TestResult.End.SKIPPED) {
                    items.add(item(test));
                }
            }
        } catch (TestReports.Unreadable e) {
            return List.of(CheckItem.ended(
                    CheckItem.Sort.TEST,
                    NAME,
                    ended.outcome().passed() ? TrialOutcome.CRASHED : ended.outcome(),
                    "no report can be read: " + e.getMessage()));
        }
        boolean wasEnded = end.end() != RunEnd.End.BY_ITSELF;
        boolean allPassed = items.stream().allMatch(i -> i.outcome().passed());
        if (wasEnded || allPassed && !ended.outcome().passed()) {
            items.add(CheckItem.ended(CheckItem.Sort.TEST, NAME, ended.outcome(), ended.why()));
        } else if (items.isEmpty()) {
            items.add(CheckItem.ended(CheckItem.Sort.TEST, NAME, TrialOutcome.CRASHED, "no test was run"));
        }
        return items;
    }

    private List<TestResult> read(RunEnd end) throws TestReports.Unreadable {
        List<TestResult> tests = new ArrayList<>();
        if (reports.isEmpty()) {
            return one(end.output());
        }
        boolean found = false;
        for (var file : new TreeMap<>(end.files()).entrySet()) {
            if (file.getKey().equals(reports) || file.getKey().startsWith(reports + "/") && isReport(file.getKey())) {
                tests.addAll(one(file.getValue()));
                found = true;
            }
        }
        if (!found) {
            throw new TestReports.Unreadable("there is no " + reports);
        }
        return tests;
    }

    private boolean isReport(String path) {
        return path.endsWith(format == Format.TAP ? ".tap" : ".xml");
    }

    private List<TestResult> one(String text) throws TestReports.Unreadable {
        return format == Format.TAP ? TestReports.tap(text) : TestReports.junit(text);
    }

    private static CheckItem item(TestResult test) {
        return test.end() == TestResult.End.PASSED
                ? CheckItem.passed(CheckItem.Sort.TEST, test.name())
                : CheckItem.ended(CheckItem.Sort.TEST, test.name(), TrialOutcome.FAILED_TESTS, test.message());
    }
}
