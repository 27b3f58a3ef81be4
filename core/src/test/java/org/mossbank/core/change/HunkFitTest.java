package org.mossbank.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class HunkFitTest {
    private static final String FILE =
            IntStream.rangeClosed(1, 30).mapToObj(i -> "line " + i + "\n").collect(Collectors.joining());

    private static AnswerCode.Loosely fitted(String file, String diff) {
        return AnswerCode.loosely(Map.of("a.txt", file), "```diff\n--- a/a.txt\n+++ b/a.txt\n" + diff + "```\n");
    }

    private static String only(AnswerCode.Loosely fitted) {
        assertThat(fitted.code().changes())
                .allSatisfy(c -> assertThat(c.misfit()).isEmpty());
        return fitted.code().files().get(0).text();
    }

    @Test
    public void whatFitsExactlyIsToldAsNothing() {
        AnswerCode.Loosely fitted = fitted(FILE, "@@ -9,3 +9,3 @@\n line 9\n-line 10\n+line ten\n line 11\n");
        assertThat(only(fitted)).isEqualTo(FILE.replace("line 10\n", "line ten\n"));
        assertThat(fitted.told()).isEmpty();
    }

    @DataProvider
    public Object[][] elsewhere() {
        return new Object[][] {
            {"further down", 4, "a.txt, part 1 fits 6 lines further down."},
            {"further up", 11, "a.txt, part 1 fits 1 line further up."},
        };
    }

    @Test(dataProvider = "elsewhere")
    public void linesThatStandElsewhereAreFoundThere(String name, int said, String told) {
        AnswerCode.Loosely fitted =
                fitted(FILE, "@@ -%d,2 +%d,2 @@\n-line 10\n+line ten\n line 11\n".formatted(said, said));
        assertThat(only(fitted)).isEqualTo(FILE.replace("line 10\n", "line ten\n"));
        assertThat(fitted.told()).containsExactly(told);
    }

    /** What follows lies as far off as what came before it. */
    @Test
    public void laterPartsGoAlong() {
        AnswerCode.Loosely fitted = fitted(
                "new\n".repeat(5) + FILE,
                "@@ -3,2 +3,3 @@\n line 3\n+between\n line 4\n@@ -20,2 +21,1 @@\n-line 20\n line 21\n");
        assertThat(only(fitted))
                .isEqualTo("new\n".repeat(5)
                        + FILE.replace("line 3\n", "line 3\nbetween\n").replace("line 20\n", ""));
        assertThat(fitted.told())
                .containsExactly(
                        "a.txt, part 1 fits 5 lines further down.", "a.txt, part 2 fits 5 lines further down.");
    }

    @Test
    public void linesAroundMayReadOtherwise() {
        AnswerCode.Loosely fitted =
                fitted(FILE, "@@ -8,5 +8,5 @@\n line eight\n line 9\n-line 10\n+line ten\n line 11\n line twelve\n");
        assertThat(only(fitted)).isEqualTo(FILE.replace("line 10\n", "line ten\n"));
        assertThat(fitted.told())
                .containsExactly("a.txt, part 1 fits where it says, with 1 line around it passed over.");
    }

    /** What is taken away must be there, and more than two lines around are too many to pass over. */
    @DataProvider
    public Object[][] nowhere() {
        return new Object[][] {
            {"@@ -9,3 +9,3 @@\n line 9\n-line zehn\n+line ten\n line 11\n"},
            {"@@ -7,4 +7,4 @@\n l 7\n l 8\n l 9\n-line 10\n+line ten\n"},
            {"@@ -9,2 +9,3 @@\n l 9\n+line ten\n l 11\n"},
        };
    }

    @Test(dataProvider = "nowhere")
    public void whatIsNotThereIsRefusedWithItsPart(String diff) {
        AnswerCode.Loosely fitted = fitted(FILE, diff);
        assertThat(fitted.code().changes().get(0).misfit().orElseThrow())
                .startsWith("a.txt, part 1 of 1 (from line ")
                .endsWith("its lines are not there");
        assertThat(fitted.told()).isEmpty();
    }

    /** Lines that stand there thousands of times, and parts that fit nowhere: searching ends all the same. */
    @Test
    public void searchingHasABound() {
        String diff = "```diff\n--- a/a.txt\n+++ b/a.txt\n@@ -1,4 +1,4 @@\n same\n same\n same\n-other\n+x\n```\n\n";
        AnswerCode.Loosely fitted = AnswerCode.loosely(Map.of("a.txt", "same\n".repeat(2_000_000)), diff);
        assertThat(fitted.code().changes())
                .isNotEmpty()
                .allSatisfy(c -> assertThat(c.misfit()).isPresent())
                .anySatisfy(c -> assertThat(c.misfit().orElseThrow()).contains("it is too much"));
    }
}
