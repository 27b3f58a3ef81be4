package org.mossbank.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.SplittableRandom;
import java.util.TreeMap;
import java.util.function.IntFunction;
import java.util.stream.Collectors;
import org.mossbank.core.hostile.CountedText;
import org.mossbank.core.hostile.HostileTexts;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Whatever an answer holds, comparing it with the starting code ends, at the same place each time, and says so. */
public class HostileCodeTest {
    private static final String LINES = new SplittableRandom(7)
            .ints(2_000, 0, 2)
            .mapToObj(i -> i == 0 ? "a\n" : "b\n")
            .collect(Collectors.joining());

    private static Map<String, String> alike(int files) {
        Map<String, String> start = new TreeMap<>();
        for (int i = 0; i < files; i++) {
            start.put("src/F" + i + ".java", "class F" + i + " {\n" + "x();\n}\n");
        }
        return start;
    }

    @DataProvider
    public Object[][] texts() {
        return HostileTexts.all();
    }

    @Test(dataProvider = "texts")
    public void everyTextIsReadWithinTheBudget(String what, IntFunction<String> text) {
        ComparisonBudget budget = ComparisonBudget.whole();

        AnswerCode.of(alike(200), text.apply(HostileTexts.LONGEST), budget);

        assertThat(budget.used()).as(what).isLessThan(ComparisonBudget.MOST_STEPS / 10);
    }

    @Test(dataProvider = "texts")
    public void patternsReadEachCharacterABoundedNumberOfTimes(String what, IntFunction<String> text) {
        CountedText counted = CountedText.of(text.apply(HostileTexts.LONGEST));

        StartingCode.types(counted);
        StartingCode.leavesOut(counted);

        assertThat(counted.readsEach()).as(what).isLessThan(700);
    }

    @Test
    public void manyBlocksThatAreHardToCompareStopAtTheBudget() {
        Map<String, String> start = Map.of("src/A.java", "class A {\n" + LINES + "}\n");
        String block = "```java\nclass A {\n" + LINES.substring(2) + "b\na\nb\n}\n```\n";
        String swapped = "```java\nclass A {\n"
                + LINES.replace('a', 'c').replace('b', 'a').replace('c', 'b') + "}\n```\n";
        ComparisonBudget budget = ComparisonBudget.whole();

        AnswerCode code = AnswerCode.of(start, (block + "\n" + swapped + "\n").repeat(400), budget);

        assertThat(budget.used()).isBetween(ComparisonBudget.MOST_STEPS, ComparisonBudget.MOST_STEPS + 10_000);
        assertThat(code.limits()).anyMatch(l -> l.startsWith("Comparing with the starting code stopped"));
    }

    @Test
    public void theSameAnswerIsCutOffAtTheSamePlace() {
        Map<String, String> start = Map.of("src/A.java", "class A {\n" + LINES + "}\n");
        String answer = ("```java\nclass A {\n" + LINES.replace("a\nb", "b\na") + "}\n```\n").repeat(300);

        assertThat(AnswerCode.of(start, answer, ComparisonBudget.of(1_000_000)))
                .isEqualTo(AnswerCode.of(start, answer, ComparisonBudget.of(1_000_000)));
    }

    @Test
    public void linesThatManyFilesShareAreCounted() {
        String block = "```java\nx();\n}\n```\n";
        ComparisonBudget budget = ComparisonBudget.of(100_000);

        AnswerCode code = AnswerCode.of(alike(500), block.repeat(900), budget);

        assertThat(budget.isSpent()).isTrue();
        assertThat(code.limits()).isNotEmpty();
    }

    @Test
    public void moreBlocksThanAnybodyReadsAreLeftOut() {
        AnswerCode code = AnswerCode.of(Map.of(), "```\ncode\n```\n".repeat(ComparisonBudget.MOST_BLOCKS + 5));

        assertThat(code.files()).hasSize(ComparisonBudget.MOST_BLOCKS);
        assertThat(code.limits()).containsExactly("Only the first 1,000 of 1,005 blocks of code were looked at.");
    }

    @Test
    public void moreFilesThanAnybodyReadsAreLeftOut() {
        StringBuilder diff = new StringBuilder("```diff\n");
        for (int i = 0; i <= ComparisonBudget.MOST_FILES; i++) {
            diff.append("--- /dev/null\n+++ b/f%d\n@@ -0,0 +1 @@\n+x\n".formatted(i));
        }
        AnswerCode code = AnswerCode.of(Map.of(), diff + "```\n");

        assertThat(code.changes()).hasSize(ComparisonBudget.MOST_FILES);
        assertThat(code.limits()).containsExactly("Only the first 1,000 of 1,001 changed files are shown.");
    }

    /** Each of many changes of one file would write it whole. */
    @Test
    public void manyChangesOfOneFileStopAtTheBudget() {
        Map<String, String> start = Map.of("a.txt", "line\n".repeat(50_000));
        String answer = "```diff\n" + "--- a/a.txt\n+++ b/a.txt\n@@ -1 +1 @@\n-line\n+x\n".repeat(900) + "```\n";

        AnswerCode code = AnswerCode.of(start, answer);

        assertThat(code.files()).hasSizeLessThan(900);
        assertThat(code.limits()).isNotEmpty();
    }
}
