package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.mossbank.core.change.AnswerCode;
import org.mossbank.core.hostile.HostileTexts;
import org.testng.annotations.Test;

public class AssembledCodeTest {
    private static final Map<String, String> START =
            Map.of("Tide.java", "class Tide {\n    int high() {\n        return 1;\n    }\n}\n");
    private static final Optional<LooseCode> LOOSE = Optional.of(new LooseCode("*.java", "class Loose {", "}", true));

    private static AssembledCode assemble(String answer, Optional<LooseCode> loose, Map<String, String> extra) {
        return AssembledCode.of(START, AnswerCode.of(START, answer), loose, Set.of("java"), extra);
    }

    private static String block(String language, String code) {
        return "Here:\n\n```" + language + "\n" + code + "```\n";
    }

    @Test
    public void aDifferenceIsApplied() {
        AssembledCode code = assemble(
                block(
                        "diff",
                        "--- a/Tide.java\n+++ b/Tide.java\n@@ -2,3 +2,3 @@\n     int high() {\n-        return 1;\n+        return 2;\n     }\n"),
                LOOSE,
                Map.of());

        assertThat(code.misfit()).isEmpty();
        assertThat(code.files()).containsOnlyKeys("Tide.java");
        assertThat(code.files().get("Tide.java")).contains("return 2;");
        assertThat(code.written()).containsExactly("Tide.java");
    }

    @Test
    public void oneThatDoesNotFitIsTold() {
        AssembledCode code = assemble(
                block(
                        "diff",
                        "--- a/Tide.java\n+++ b/Tide.java\n@@ -2,1 +2,1 @@\n-    int low() {\n+    int deep() {\n"),
                LOOSE,
                Map.of());

        assertThat(code.misfit()).hasValue("Tide.java, line 2, reads otherwise in the starting code");
        assertThat(code.files()).isEmpty();
    }

    /** Made small, each of its letters becomes two; ended where that takes the square of the length. */
    @Test(timeOut = 60_000)
    public void aLanguageWithoutAnEndIsNone() {
        AssembledCode code = assemble(block("İ".repeat(HostileTexts.LONGEST), "class Mine {}\n"), LOOSE, Map.of());

        assertThat(code.misfit()).isPresent();
        assertThat(code.written()).isEmpty();
    }

    @Test
    public void aDifferenceThatLeadsOutIsNotApplied() {
        AssembledCode code = assemble(
                block("diff", "--- /dev/null\n+++ b/../../etc/cron.d/x\n@@ -0,0 +1,1 @@\n+root\n"), LOOSE, Map.of());

        assertThat(code.misfit()).isPresent();
        assertThat(code.files()).isEmpty();
    }

    @Test
    public void looseBlocksAreJoinedAndNamedOnesStandAlone() {
        AssembledCode code = assemble(
                block("java", "int a() { return 1; }\n")
                        + block("java", "// Ebb.java\nclass Ebb {}\n")
                        + block("java", "int b() { return 2; }\n"),
                LOOSE,
                Map.of());

        assertThat(code.files()).containsOnlyKeys("Tide.java", "Loose.java", "Ebb.java");
        assertThat(code.files().get("Loose.java"))
                .isEqualTo("class Loose {\nint a() { return 1; }\nint b() { return 2; }\n}\n");
    }

    @Test
    public void aNamedBlockThatLeadsOutIsNotTried() {
        AssembledCode code = assemble(block("java", "// ../../Ebb.java\nclass Ebb {}\n"), LOOSE, Map.of());

        assertThat(code.misfit()).hasValue("../../Ebb.java leads out of the folder");
    }

    @Test
    public void filesOfTheCheckStandAboveTheAnswers() {
        AssembledCode code = assemble(
                block("java", "// TideTest.java\nclass TideTest { /* passes always */ }\n"),
                LOOSE,
                Map.of("TideTest.java", "class TideTest { /* the check's */ }\n"));

        assertThat(code.files().get("TideTest.java")).contains("the check's");
    }

    @Test
    public void anAnswerWithoutCodeDoesNotApply() {
        assertThat(assemble("I would not change it.", LOOSE, Map.of("a", "b")).misfit())
                .hasValue("there is no code in it that the check has a place for");
        assertThat(assemble(block("java", "int a() { return 1; }\n"), Optional.empty(), Map.of())
                        .misfit())
                .isPresent();
    }

    @Test
    public void blocksInAnotherLanguageAreNotItsCode() {
        AssembledCode code = assemble(
                block("java", "int a() { return 1; }\n") + block("bash", "java Loose\n") + block("", "1\n"),
                LOOSE,
                Map.of());

        assertThat(code.files().get("Loose.java")).isEqualTo("class Loose {\nint a() { return 1; }\n}\n");
    }

    @Test
    public void whereNoBlockNamesItsLanguageThoseThatNameNoneAreMeant() {
        AssembledCode code =
                assemble(block("", "int a() { return 1; }\n") + block("python", "print(1)\n"), LOOSE, Map.of());

        assertThat(code.files().get("Loose.java")).contains("int a()").doesNotContain("print");
    }
}
