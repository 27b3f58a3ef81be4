package org.mossbank.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.SplittableRandom;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class AnswerChangesTest {
    private static final String LIGHT = "package buoys;\n\nclass Light {\n    int range;\n    int period;\n}\n";
    private static final Map<String, String> CODE =
            Map.of("src/buoys/Light.java", LIGHT, "src/buoys/Visit.java", "class Visit {\n    Crew crew;\n}\n");

    @Test
    public void aDiffInABlockCounts() {
        String answer = "Made final.\n\n```diff\n--- a/src/buoys/Light.java\n+++ b/src/buoys/Light.java\n@@ -4 +4 @@\n"
                + "-    int range;\n+    final int range;\n```\nDone.\n";

        assertThat(ChangeSize.of(AnswerChanges.of(CODE, answer))).isEqualTo(new ChangeSize(1, 1, 1, true));
    }

    @Test
    public void aFileThatIsPrintedAgainIsComparedWithItsStart() {
        String answer = "In `Light.java`:\n\n```java\n" + LIGHT.replace("int period", "long period") + "```\n";

        List<FileChange> changes = AnswerChanges.of(CODE, answer);

        assertThat(changes).extracting(FileChange::path).containsExactly("src/buoys/Light.java");
        assertThat(ChangeSize.of(changes)).isEqualTo(new ChangeSize(1, 1, 1, true));
    }

    @Test
    public void anExcerptRemovesNothing() {
        assertThat(AnswerChanges.of(CODE, "```java\n    int range;\n```\n")).isEmpty();
    }

    @DataProvider
    Object[][] excerpts() {
        return new Object[][] {
            {"a method of it", "void shine() {}\n"},
            {"lines left out", "class Light {\n    // ...\n    long period;\n    int range;\n}\n"},
            {"lines left out, in words", "class Light {\n    // ... as before\n    long period;\n    int range;\n}\n"},
            {"lines left out, without a comment", "class Light {\n    ...\n    int range;\n    int period;\n}\n"},
            {"lines left out, in one sign", "package buoys;\n\nclass Light {\n    …\n}\n"},
            {"another type", "class Lamp {\n    long period;\n}\n"},
            {"its type within another", "class Buoy {\n    static class Light {\n    }\n}\n"},
            {"its type in words", "// the class Light stays\nlong period;\n"},
        };
    }

    @Test(dataProvider = "excerpts")
    public void whatIsNotTheWholeFileRemovesNothing(String name, String code) {
        assertThat(AnswerChanges.of(CODE, "```java\n" + code + "```\n"))
                .as(name)
                .isEmpty();
    }

    @Test
    public void aFileWhoseTypeIsDeclaredAnewIsThatFile() {
        String answer = "```java\npublic record Light(int range, long period) {}\n```\n";

        List<FileChange> changes = AnswerChanges.of(CODE, answer);

        assertThat(changes).extracting(FileChange::path).containsExactly("src/buoys/Light.java");
        // By hand: the four lines of the class go, one comes; the package is not spoken of, and stays.
        assertThat(ChangeSize.of(changes)).isEqualTo(new ChangeSize(1, 1, 4, true));
    }

    @DataProvider
    Object[][] heads() {
        return new Object[][] {
            // name, head of the file, head in the answer, lines added, lines removed; one line of the type changes
            {"not spoken of", "package a;\n\nimport b.C;\n\n", "", 1, 1},
            {"in the answer, without one import", "package a;\n\nimport b.C;\n\n", "package a;\n\n", 1, 3},
            {"in the answer, with one more", "import b.C;\n", "import b.C;\nimport b.D;\n", 2, 1},
            {"none", "", "", 1, 1},
            {"not spoken of, in another language", "#include <b.h>\nusing namespace b;\n", "", 1, 1},
        };
    }

    @Test(dataProvider = "heads")
    public void theHeadOfAFileStaysUnlessTheAnswerHasOne(
            String name, String head, String inAnswer, int added, int removed) {
        String type = "class Light {\n    int range;\n    int period;\n}\n";
        String answer = "```java\n" + inAnswer + type.replace("int range", "long range") + "```\n";

        assertThat(ChangeSize.of(AnswerChanges.of(Map.of("Light.java", head + type), answer)))
                .as(name)
                .isEqualTo(new ChangeSize(1, added, removed, true));
    }

    @Test
    public void codeThatIsSpreadLeavesNothingOut() {
        String start = "export const light = (s) => ({\n  on: true,\n  hue: s.hue,\n});\n";
        String answer = "```ts\nexport const light = (s) => ({\n  ...s,\n  on: true,\n});\n```\n";

        assertThat(AnswerChanges.of(Map.of("light.ts", start), answer)).hasSize(1);
    }

    @Test
    public void allTypesOfAFileMustBeThereForItToBeDeclaredAnew() {
        Map<String, String> two = Map.of("Light.java", "class Light {\n    int a;\n    int b;\n}\nclass Lens {}\n");

        assertThat(AnswerChanges.of(two, "```java\nrecord Light(int a) {}\n```\n"))
                .isEmpty();
        assertThat(AnswerChanges.of(two, "```java\nrecord Light(int a) {}\n\nrecord Lens() {}\n```\n"))
                .hasSize(1);
    }

    @Test
    public void theLastStateOfAFileCounts() {
        String first = "```java\n" + LIGHT.replace("int", "long") + "```\n";
        String second = "```java\n" + LIGHT.replace("int range", "short range") + "```\n";

        assertThat(ChangeSize.of(AnswerChanges.of(CODE, first + "\nBetter:\n" + second)))
                .isEqualTo(new ChangeSize(1, 1, 1, true));
        assertThat(AnswerChanges.of(CODE, first + "\nBack again:\n```java\n" + LIGHT + "```\n"))
                .isEmpty();
    }

    @Test
    public void aDiffThatIsMalformedChangesNothing() {
        assertThat(AnswerChanges.of(CODE, "```diff\n- int range;\n+ final int range;\n```\n"))
                .isEmpty();
    }

    /** Law: what is between two states, applied to the first, gives the second; and every hunk fits. */
    @Test
    public void betweenAppliedGivesTheOtherState() {
        SplittableRandom random = new SplittableRandom(20261125);
        for (int round = 0; round < 300; round++) {
            List<String> before = new ArrayList<>();
            for (int i = 0; i < random.nextInt(1, 60); i++) {
                before.add("line " + random.nextInt(8));
            }
            List<String> after = new ArrayList<>(before);
            for (int edit = 0; edit < random.nextInt(6); edit++) {
                int at = random.nextInt(after.size() + 1);
                if (random.nextBoolean() || at == after.size()) {
                    after.add(at, "fresh " + random.nextInt(4));
                } else {
                    after.remove(at);
                }
            }

            List<String> applied = new ArrayList<>(before);
            AnswerChanges.between("F", text(before), text(after)).ifPresent(change -> {
                assertThat(AnswerChanges.misfit(new StartingCode(Map.of("F", text(before))), change))
                        .isEmpty();
                int shift = 0;
                for (Hunk hunk : change.hunks()) {
                    List<String> old = hunk.linesBefore();
                    assertThat(hunk.after()).isEqualTo(hunk.before() + shift);
                    List<String> place = applied.subList(hunk.after() - 1, hunk.after() - 1 + old.size());
                    place.clear();
                    hunk.lines().stream()
                            .filter(l -> l.kind() != ChangedLine.Kind.REMOVED)
                            .forEach(l -> place.add(l.text()));
                    shift += change(hunk);
                }
            });

            assertThat(applied).isEqualTo(after);
        }
    }

    private static int change(Hunk hunk) {
        return hunk.count(ChangedLine.Kind.ADDED) - hunk.count(ChangedLine.Kind.REMOVED);
    }

    private static String text(List<String> lines) {
        return lines.isEmpty() ? "" : String.join("\n", lines) + "\n";
    }

    @Test
    public void saysWhereADiffDoesNotFit() throws MalformedDiff {
        FileChange moved = UnifiedDiff.parse("--- a/src/buoys/Light.java\n+++ b/src/buoys/Light.java\n@@ -3 +3 @@\n"
                        + "-    int range;\n+    long range;\n")
                .get(0);
        FileChange unknown = UnifiedDiff.parse("--- a/Other.java\n+++ b/Other.java\n@@ -1 +1 @@\n-x\n+y\n")
                .get(0);
        FileChange there = UnifiedDiff.parse("--- /dev/null\n+++ b/src/buoys/Visit.java\n@@ -0,0 +1 @@\n+x\n")
                .get(0);

        assertThat(AnswerChanges.misfit(new StartingCode(CODE), moved))
                .contains("src/buoys/Light.java, line 3, reads otherwise in the starting code");
        assertThat(AnswerChanges.misfit(new StartingCode(CODE), unknown))
                .contains("Other.java is not in the starting code");
        assertThat(AnswerChanges.misfit(new StartingCode(CODE), there))
                .contains("src/buoys/Visit.java is there already");
    }
}
