package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.testng.annotations.Test;

public class LooseCodeTest {
    private static final LooseCode METHODS = new LooseCode("*.java", "public class Loose {", "}", true);

    @Test
    public void aMethodIsWrappedAndItsImportsStandAbove() {
        LooseCode.Placed placed =
                METHODS.place("import java.util.List;\nint sum(List<Integer> of) {\n    return 0;\n}\n");

        assertThat(placed.path()).isEqualTo("Loose.java");
        assertThat(placed.text())
                .isEqualTo(
                        "import java.util.List;\npublic class Loose {\nint sum(List<Integer> of) {\n    return 0;\n}\n}\n");
        assertThat(placed.firstLine()).isEqualTo(2);
    }

    @Test
    public void aWholeTypeIsNotWrappedAndNamesItsFile() {
        LooseCode.Placed placed = METHODS.place("record Pair(int a, int b) {}\n\npublic final class Totals {\n}\n");

        assertThat(placed.path()).isEqualTo("Totals.java");
        assertThat(placed.text()).doesNotContain("Loose");
    }

    @Test
    public void aTypeThatIsGivenANameIsOneToo() {
        LooseCode typed = new LooseCode("answer.ts", "export type Mark = {};", "", false);

        assertThat(typed.place("export type Mark = { kind: string };\nlabel();\n")
                        .text())
                .isEqualTo("export type Mark = { kind: string };\nlabel();\n");
        assertThat(typed.place("label();\n").text()).isEqualTo("export type Mark = {};\nlabel();\n");
    }

    @Test
    public void importsStayWhereTheyAreUnlessTheyAreLifted() {
        LooseCode inPlace = new LooseCode("a.ts", "export {};", "", false);

        assertThat(inPlace.place("import { a } from './b';\na();\n").text())
                .isEqualTo("export {};\nimport { a } from './b';\na();\n");
    }

    @Test
    public void aPathThatLeadsOutIsRefused() {
        assertThatThrownBy(() -> new LooseCode("../a.java", "", "", false))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining("path");
        assertThatThrownBy(() -> new LooseCode("*/*.java", "", "", false)).isInstanceOf(IllegalArgumentException.class);
    }
}
