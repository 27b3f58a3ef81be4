package org.mossbank.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.testng.annotations.Test;

public class AnswerCodeTest {
    private static final String GAUGE = "def level(x):\n    return x\n\ndef tide(x):\n    return x + 1\n";
    private static final Map<String, String> START = Map.of("gauge.py", GAUGE);

    private static String fenced(String language, String content) {
        return "```" + language + "\n" + content + "```\n";
    }

    @Test
    public void aDiffIsApplied() {
        List<CodeFile> files = AnswerCode.of(
                        START,
                        fenced(
                                "diff",
                                "--- a/gauge.py\n+++ b/gauge.py\n@@ -2 +2,2 @@\n-    return x\n+    y = x\n+    return y\n"))
                .files();

        assertThat(files)
                .containsExactly(new CodeFile(
                        "gauge.py",
                        CodeFile.Sort.CHANGED,
                        "def level(x):\n    y = x\n    return y\n\ndef tide(x):\n    return x + 1\n",
                        GAUGE));
    }

    @Test
    public void aHunkThatOnlyAddsComesAfterTheLineItNames() {
        List<CodeFile> files = AnswerCode.of(
                        START, fenced("diff", "--- a/gauge.py\n+++ b/gauge.py\n@@ -1,0 +2 @@\n+    # metres\n"))
                .files();

        assertThat(files.get(0).text()).startsWith("def level(x):\n    # metres\n    return x\n");
    }

    @Test
    public void newAndRemovedFilesAreTold() {
        List<CodeFile> files = AnswerCode.of(
                        START,
                        fenced("diff", "--- /dev/null\n+++ b/mean.py\n@@ -0,0 +1 @@\n+MEAN = 2\n")
                                + "\n"
                                + fenced(
                                        "diff",
                                        "--- a/gauge.py\n+++ /dev/null\n@@ -1,5 +0,0 @@\n-def level(x):\n-    return x\n-\n-def tide(x):\n-    return x + 1\n"))
                .files();

        assertThat(files).extracting(CodeFile::sort).containsExactly(CodeFile.Sort.ADDED, CodeFile.Sort.REMOVED);
        assertThat(files.get(0).text()).isEqualTo("MEAN = 2\n");
    }

    @Test
    public void blocksThatBelongToNoFileAreNumbered() {
        List<CodeFile> files = AnswerCode.of(
                        START,
                        fenced("python", "a = 1\n") + "\n" + fenced("text", "no code\n") + "\n" + fenced("", "b = 2\n"))
                .files();

        assertThat(files).extracting(CodeFile::path).containsExactly("Block 1, python", "Block 2");
    }

    @Test
    public void aDiffThatDoesNotFitChangesNoFile() {
        assertThat(AnswerCode.of(
                                START,
                                fenced("diff", "--- a/gauge.py\n+++ b/gauge.py\n@@ -1 +1 @@\n-nothing like it\n+x\n"))
                        .files())
                .isEmpty();
    }

    /** Law: what is between two states, applied to the first, gives the second. */
    @Test
    public void appliedGivesTheOtherState() {
        SplittableRandom random = new SplittableRandom(20261126);
        for (int round = 0; round < 300; round++) {
            String before = text(random);
            String after = text(random);
            AnswerChanges.between("f", before, after)
                    .ifPresent(change -> assertThat(AnswerCode.of(Map.of("f", before), fenced("diff", diff(change)))
                                    .files()
                                    .get(0)
                                    .text())
                            .isEqualTo(after));
        }
    }

    /** As an answer would write it. */
    private static String diff(FileChange change) {
        StringBuilder diff = new StringBuilder("--- a/f\n+++ b/f\n");
        for (Hunk hunk : change.hunks()) {
            long old = hunk.lines().stream()
                    .filter(l -> l.kind() != ChangedLine.Kind.ADDED)
                    .count();
            long fresh = hunk.lines().stream()
                    .filter(l -> l.kind() != ChangedLine.Kind.REMOVED)
                    .count();
            diff.append("@@ -%d,%d +%d,%d @@\n"
                    .formatted(old == 0 ? hunk.before() - 1 : hunk.before(), old, hunk.after(), fresh));
            hunk.lines()
                    .forEach(l -> diff.append(" +-".charAt(l.kind().ordinal()))
                            .append(l.text())
                            .append('\n'));
        }
        return diff.toString();
    }

    private static String text(SplittableRandom random) {
        StringBuilder text = new StringBuilder();
        int lines = random.nextInt(30);
        for (int i = 0; i < lines; i++) {
            text.append("line ").append(random.nextInt(6)).append('\n');
        }
        return text.toString();
    }

    @Test
    public void twoAnswersAreComparedFileByFileAndBlockByBlock() {
        List<CodeFile> first = AnswerCode.of(START, fenced("python", GAUGE.replace("+ 1", "+ 2")))
                .files();
        List<CodeFile> second = AnswerCode.of(START, fenced("python", GAUGE.replace("return x\n", "return -x\n")))
                .files();
        List<FileChange> changes = AnswerCode.between(first, second);

        assertThat(changes).extracting(FileChange::path).containsExactly("gauge.py");
        assertThat(ChangeSize.of(changes)).isEqualTo(new ChangeSize(1, 2, 2, true));
        assertThat(AnswerCode.between(first, first)).isEmpty();
    }

    /** A file that one answer leaves alone is as it started, and not missing. */
    @Test
    public void whatOnlyOneChangesIsComparedWithItsStart() {
        List<CodeFile> changed = AnswerCode.of(START, fenced("python", GAUGE.replace("+ 1", "+ 2")))
                .files();
        List<CodeFile> other = AnswerCode.of(START, fenced("python", "a = 1\n")).files();

        List<FileChange> changes = AnswerCode.between(changed, other);

        assertThat(changes).extracting(FileChange::path).containsExactly("gauge.py", "Block 1");
        assertThat(changes)
                .extracting(FileChange::sort)
                .containsExactly(FileChange.Sort.CHANGED, FileChange.Sort.ADDED);
    }

    /** Far too long to compare line by line, and yet told at once. */
    @Test(timeOut = 60_000)
    public void veryLongFilesThatShareLittleAreWhollyReplaced() {
        List<String> lines = new ArrayList<>();
        for (int i = 0; i < 50_000; i++) {
            lines.add("row " + i * 7919L % 50_021);
        }
        String before = String.join("\n", lines) + "\n";
        String after = before.replace("row", "line");

        FileChange change = AnswerChanges.between("big.sql", before, after).orElseThrow();

        assertThat(change.added()).isEqualTo(50_000);
        assertThat(change.removed()).isEqualTo(50_000);
        assertThat(change.coarse()).isTrue();
    }

    @Test
    public void filesThatThePromptDoesNotNameLieOutside() {
        RequestScope scope = RequestScope.of(
                List.of("Make gauge.py faster."),
                List.of("src/Tide.java"),
                List.of("gauge.py", "src/Tide.java", "Log.java"));
        FileChange log = new FileChange("Log.java", "Log.java", FileChange.Sort.CHANGED, List.of());
        FileChange gauge = new FileChange("gauge.py", "gauge.py", FileChange.Sort.CHANGED, List.of());
        FileChange fresh = new FileChange("New.java", "New.java", FileChange.Sort.ADDED, List.of());

        assertThat(scope.named()).containsExactlyInAnyOrder("gauge.py", "src/Tide.java");
        assertThat(scope.outside(List.of(log, gauge, fresh))).containsExactly("Log.java");
        assertThat(RequestScope.of(List.of("Make it faster."), List.of(), List.of("gauge.py"))
                        .outside(List.of(gauge)))
                .as("a prompt that names no file leaves nothing outside")
                .isEmpty();
    }

    /** A class named in the request is its file; a word that only holds the name is not. */
    @Test
    public void aFileIsNamedByItsPathItsNameOrItsClass() {
        List<String> paths = List.of("src/LampTimer.java");
        assertThat(RequestScope.of(List.of("LampTimer is slow"), List.of(), paths)
                        .named())
                .hasSize(1);
        assertThat(RequestScope.of(List.of("see LampTimer.java"), List.of(), paths)
                        .named())
                .hasSize(1);
        assertThat(RequestScope.of(List.of("LampTimers are slow"), List.of(), paths)
                        .named())
                .isEmpty();
    }
}
