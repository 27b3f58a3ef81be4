package org.mossbank.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.catchThrowableOfType;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class UnifiedDiffTest {
    private static final String TWO_FILES = """
            From the one who wrote it: the light's label, and its test.

            diff --git a/src/Light.java b/src/Light.java
            index 3b18e51..a9f2c1d 100644
            --- a/src/Light.java
            +++ b/src/Light.java
            @@ -1,4 +1,5 @@ class Light
             class Light {
            -    int range;
            +    final int range;
            +    final int period;

             }
            @@ -10 +11 @@
            -old
            +new
            diff --git a/src/Old.java b/src/Old.java
            deleted file mode 100644
            --- a/src/Old.java
            +++ /dev/null
            @@ -1,2 +0,0 @@
            -class Old {
            -}
            --- /dev/null\t2026-03-02
            +++ src/New.java\t2026-03-02
            @@ -0,0 +1 @@
            +class New {}
            \\ No newline at end of file
            diff --git a/src/A.java b/src/B.java
            similarity index 100%
            rename from src/A.java
            rename to src/B.java
            """;

    @Test
    public void readsSeveralFilesWithTextAbove() throws MalformedDiff {
        List<FileChange> changes = UnifiedDiff.parse(TWO_FILES);

        assertThat(changes)
                .extracting(FileChange::path, FileChange::sort, FileChange::added, FileChange::removed)
                .containsExactly(
                        org.assertj.core.groups.Tuple.tuple("src/Light.java", FileChange.Sort.CHANGED, 3, 2),
                        org.assertj.core.groups.Tuple.tuple("src/Old.java", FileChange.Sort.REMOVED, 0, 2),
                        org.assertj.core.groups.Tuple.tuple("src/New.java", FileChange.Sort.ADDED, 1, 0),
                        org.assertj.core.groups.Tuple.tuple("src/B.java", FileChange.Sort.MOVED, 0, 0));
        assertThat(ChangeSize.of(changes)).isEqualTo(new ChangeSize(4, 4, 4, true));
        assertThat(changes.get(3).from()).isEqualTo("src/A.java");
    }

    @Test
    public void anEmptyLineIsAKeptOneThatLostItsSpace() throws MalformedDiff {
        Hunk hunk = UnifiedDiff.parse(TWO_FILES).get(0).hunks().get(0);

        assertThat(hunk.lines().get(4)).isEqualTo(new ChangedLine(ChangedLine.Kind.KEPT, ""));
    }

    @Test
    public void lineEndsOfWindowsAreNoPartOfLines() throws MalformedDiff {
        List<FileChange> changes = UnifiedDiff.parse("--- a\r\n+++ b\r\n@@ -1 +1 @@\r\n-x\r\n+y\r\n");

        assertThat(changes.get(0).hunks().get(0).lines())
                .extracting(ChangedLine::text)
                .containsExactly("x", "y");
    }

    @DataProvider
    public Object[][] malformed() {
        String head = "--- a/F.java\n+++ b/F.java\n";
        return new Object[][] {
            {"nothing", "", 1},
            {"prose", "I changed the range.\nIt is final now.\n", 1},
            {"no names", "@@ -1 +1 @@\n-x\n+y\n", 1},
            {"no new name", "diff --git a/F b/F\n--- a/F\n@@ -1 +1 @@\n-x\n+y\n", 3},
            {"no hunk", head, 3},
            {"a hunk's head without numbers", head + "@@ here @@\n-x\n+y\n", 3},
            {"a hunk's head without an end", head + "@@ -1 +1\n-x\n+y\n", 3},
            {"a hunk's head with letters", head + "@@ -a,2 +1 @@\n-x\n+y\n", 3},
            {"a number that is too long", head + "@@ -12345678901 +1 @@\n-x\n+y\n", 3},
            {"too few lines", head + "@@ -1,3 +1,3 @@\n-x\n+y\n", 5},
            {"too many removed lines", head + "@@ -1 +1 @@\n-x\n-z\n+y\n", 5},
            {"too many added lines", head + "@@ -1 +1 @@\n-x\n+y\n+z\n", 6},
            {"too many kept lines", head + "@@ -1,2 +1,2 @@\n-x\n+y\n k\n l\n", 7},
            {"a line without a sign", head + "@@ -1,2 +1,2 @@\n-x\n+y\nk\n", 6},
            {"a hunk that stands before the last", head + "@@ -9 +9 @@\n-x\n+y\n@@ -3 +3 @@\n-x\n+y\n", 6},
            {"hunks that overlap", head + "@@ -1,3 +1,3 @@\n x\n x\n x\n@@ -2 +2 @@\n-x\n+y\n", 7},
            {"an absolute path", "--- /etc/F\n+++ /etc/F\n@@ -1 +1 @@\n-x\n+y\n", 1},
            {"a path that climbs", "--- a/../F\n+++ b/../F\n@@ -1 +1 @@\n-x\n+y\n", 1},
            {"a path of Windows", "--- a\\F\n+++ b\\F\n@@ -1 +1 @@\n-x\n+y\n", 1},
            {"no name", "--- \n+++ \n@@ -1 +1 @@\n-x\n+y\n", 1},
            {"nowhere to nowhere", "--- /dev/null\n+++ /dev/null\n@@ -1 +1 @@\n-x\n+y\n", 2},
            {"a binary file", "diff --git a/x.png b/x.png\nindex 1..2\nBinary files a/x.png and b/x.png differ\n", 3},
            {"moved, but not where to", "diff --git a/A b/B\nrename from A\n", 3},
            {"words between files", head + "@@ -1 +1 @@\n-x\n+y\nand then\n--- a\n+++ b\n@@ -1 +1 @@\n-x\n+y\n", 6},
        };
    }

    @Test(dataProvider = "malformed")
    public void refusesWithTheLine(String name, String text, int line) {
        MalformedDiff fault = catchThrowableOfType(MalformedDiff.class, () -> UnifiedDiff.parse(text));

        assertThat(fault).as(name).isNotNull();
        assertThat(fault.line()).as(name + ": " + fault.expected()).isEqualTo(line);
        assertThat(fault.expected()).isNotBlank();
    }
}
