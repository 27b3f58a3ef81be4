package org.mossbank.core.trial;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;

/**
 * What must come of one run of a program.
 *
 * @param name       of the run, for people
 * @param status     that it must end with
 * @param output     what it must write; empty if that does not matter
 * @param files      that must be there afterwards, each with what must stand in it
 * @param absent     paths that must not be there
 * @param elsewhere  whether it may write other files
 */
public record CheckRun(
        String name,
        int status,
        Optional<ExpectedText> output,
        Map<String, ExpectedText> files,
        List<String> absent,
        Elsewhere elsewhere) {
    /** Whether a program may write files that nobody asked for. */
    public enum Elsewhere {
        ALLOWED,
        FORBIDDEN
    }

    public CheckRun {
        files = Map.copyOf(files);
        absent = List.copyOf(absent);
    }

    /** That it ends with 0, and nothing else. */
    public static CheckRun endsWell(String name) {
        return new CheckRun(name, 0, Optional.empty(), Map.of(), List.of(), Elsewhere.ALLOWED);
    }

    /** What an end comes to: the first thing that is not as it must be is told. */
    public CheckItem judge(RunEnd end) {
        return switch (end.end()) {
            case TIMED_OUT -> ended(TrialOutcome.TIMED_OUT, "its time was over");
            case OUT_OF_MEMORY -> ended(TrialOutcome.OUT_OF_MEMORY, "it wanted more memory than it may hold");
            case WROTE_TOO_MUCH -> ended(TrialOutcome.CRASHED, "it wrote more than it may, and was ended");
            case BROKE_ITS_BOX -> ended(TrialOutcome.CRASHED, "it ended what it ran in");
            case BY_ITSELF -> byItself(end);
        };
    }

    private CheckItem ended(TrialOutcome outcome, String why) {
        return CheckItem.ended(CheckItem.Sort.RUN, name, outcome, why);
    }

    private CheckItem byItself(RunEnd end) {
        if (end.status() != status && MemoryWords.in(end.errors())) {
            return ended(TrialOutcome.OUT_OF_MEMORY, "it wanted more memory than it may hold");
        }
        // Where it fails by its own word, what it wrote before is no result.
        if (end.status() != status) {
            return ended(TrialOutcome.CRASHED, "it ended with %d, not with %d".formatted(end.status(), status));
        }
        return outputFault(end)
                .or(() -> fileFault(end))
                .or(() -> absentFault(end))
                .or(() -> elsewhereFault(end))
                .orElseGet(() -> CheckItem.passed(CheckItem.Sort.RUN, name));
    }

    private CheckItem wrong(String expected, String came, String why) {
        return new CheckItem(CheckItem.Sort.RUN, name, TrialOutcome.WRONG_OUTPUT, expected, came, why);
    }

    private Optional<CheckItem> outputFault(RunEnd end) {
        return output.flatMap(
                o -> o.difference(end.output()).map(d -> wrong(o.text(), end.output(), "of its output " + d)));
    }

    private Optional<CheckItem> fileFault(RunEnd end) {
        for (Map.Entry<String, ExpectedText> file : new TreeMap<>(files).entrySet()) {
            String path = file.getKey();
            ExpectedText wanted = file.getValue();
            String came = end.files().get(path);
            if (came == null) {
                return Optional.of(wrong(wanted.text(), "", path + " is not there"));
            }
            Optional<String> difference = wanted.difference(came);
            if (difference.isPresent()) {
                return Optional.of(wrong(wanted.text(), came, "of " + path + " " + difference.get()));
            }
        }
        return Optional.empty();
    }

    private Optional<CheckItem> absentFault(RunEnd end) {
        return absent.stream()
                .filter(end.files()::containsKey)
                .findFirst()
                .map(path -> wrong("", end.files().getOrDefault(path, ""), path + " is still there"));
    }

    private Optional<CheckItem> elsewhereFault(RunEnd end) {
        if (elsewhere == Elsewhere.ALLOWED) {
            return Optional.empty();
        }
        Set<String> others = new TreeSet<>(end.changed());
        others.removeAll(files.keySet());
        others.removeAll(absent);
        return others.stream()
                .findFirst()
                .map(path -> wrong("", path, "it wrote " + path + ", which nobody asked for"));
    }
}
