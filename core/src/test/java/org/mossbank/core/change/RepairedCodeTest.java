package org.mossbank.core.change;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import org.testng.annotations.Test;

/** Changes that a person makes to an answer's code, laid over what they were shown of it. */
public class RepairedCodeTest {
    private static final Map<String, String> FILES = Map.of(
            "Tide.java",
            "// by Quill\nclass Tide {\n  int high = 1;\n  int low = 2;\n}\n",
            "Other.java",
            "class Other {}\n");
    private static final UnaryOperator<String> MASKED = t -> t.replace("Quill", "[masked]");

    private static RepairedCode repaired(String text) {
        return RepairedCode.of(FILES, MASKED, Map.of("Tide.java", text));
    }

    @Test
    public void linesThatWereLeftAloneStayAsTheyWere() {
        RepairedCode repaired = repaired("import java.util.List;\n// by [masked]\nclass Tide {\n  int high = 3;\n}\n");
        assertThat(repaired.files())
                .containsExactly(Map.entry(
                        "Tide.java", "import java.util.List;\n// by Quill\nclass Tide {\n  int high = 3;\n}\n"));
    }

    @Test
    public void whatWasShownAndComesBackAsItWasIsNoChange() {
        assertThat(repaired(MASKED.apply(FILES.get("Tide.java"))).files()).isEmpty();
    }

    @Test
    public void aLineThatIsReplacedCountsOnce() {
        RepairedCode repaired = repaired("import java.util.List;\n// by [masked]\nclass Tide {\n  int high = 3;\n}\n");
        // One added above, and of two that stood there one came: the more of them.
        assertThat(RepairedCode.lines(repaired.changes(FILES))).isEqualTo(3);
        assertThat(RepairedCode.lines(repaired("// by [masked]\nclass Tide {\n  int high = 1;\n  int low = 9;\n}\n")
                        .changes(FILES)))
                .isEqualTo(1);
        assertThat(RepairedCode.lines(repaired("class Tide {\n  int high = 1;\n  int low = 2;\n}\n")
                        .changes(FILES)))
                .isEqualTo(1);
    }

    @Test
    public void changesThatLieApartAreCountedApart() {
        String start = "a\nb\nc\nd\ne\nf\ng\nh\ni\nj\nk\nl\n";
        RepairedCode repaired = RepairedCode.of(
                Map.of("x", start),
                t -> t,
                Map.of("x", start.replace("b\n", "").replace("c\n", "C\n").replace("l\n", "L\nm\n")));
        List<FileChange> changes = repaired.changes(Map.of("x", start));
        assertThat(changes).hasSize(1);
        assertThat(changes.get(0).hunks()).hasSize(2);
        assertThat(RepairedCode.lines(changes)).isEqualTo(4);
    }

    @Test
    public void aTextWithoutAnEndKeepsNone() {
        assertThat(repaired("class Tide {}").files()).containsValue("class Tide {}");
        assertThat(repaired("").files()).containsValue("");
    }

    @Test
    public void aFileThatTheAnswerDoesNotHaveIsRefused() {
        assertThatThrownBy(() -> RepairedCode.of(FILES, MASKED, Map.of("Tests.java", "")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("Tests.java");
    }
}
