package org.mossbank.core.change;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.mossbank.core.change.ChangedLine.Kind;
import org.mossbank.core.change.ChangedLine.Nature;
import org.testng.annotations.Test;

public class LineNaturesTest {
    private static List<ChangedLine> between(String before, String after) {
        return LineNatures.told(
                        List.of(AnswerChanges.between("A.java", before, after).orElseThrow()))
                .get(0)
                .hunks()
                .stream()
                .flatMap(h -> h.lines().stream())
                .filter(l -> l.kind() != Kind.KEPT)
                .toList();
    }

    private static final String LAMP = "    boolean isLit(Instant now) {\n        return dusk.isBefore(now);\n    }\n";
    private static final String RANGE = "    int range() {\n        return miles;\n    }\n";

    @Test
    public void aMethodThatMovedIsToldOnBothSides() {
        List<ChangedLine> lines = between(LAMP + "\n" + RANGE, RANGE + "\n" + LAMP);

        assertThat(lines)
                .filteredOn(l -> l.text().contains("return") || l.text().contains("("))
                .allMatch(l -> l.nature() == Nature.MOVED);
        assertThat(lines).filteredOn(l -> l.nature() == Nature.MOVED).hasSize(4);
    }

    @Test
    public void indentingAloneIsWhiteSpace() {
        List<ChangedLine> lines = between("if (lit) {\nshine();\n}\n", "if (lit) {\n    shine();\n}\n");

        assertThat(lines).extracting(ChangedLine::nature).containsExactly(Nature.SPACING, Nature.SPACING);
    }

    @Test
    public void aLineThatSaysSomethingElseIsPlain() {
        List<ChangedLine> lines = between("int range = 3;\n", "int range = 4;\n");

        assertThat(lines).extracting(ChangedLine::nature).containsOnly(Nature.PLAIN);
    }

    /** A brace, or a short line that stands alone, is too common to be called moved. */
    @Test
    public void whatIsCommonHasNotMoved() {
        List<ChangedLine> lines =
                between("}\nreturn;\none();\ntwo();\nthree();\n", "one();\ntwo();\nthree();\n}\nreturn;\n");

        assertThat(lines).filteredOn(l -> l.text().equals("}")).allMatch(l -> l.nature() == Nature.PLAIN);
        assertThat(lines).filteredOn(l -> l.text().equals("return;")).allMatch(l -> l.nature() == Nature.PLAIN);
    }

    @Test
    public void aMoveIsToldAcrossFiles() {
        String moved = "    static final Duration LONGEST_DARK = Duration.ofHours(18);\n";
        List<FileChange> told = LineNatures.told(List.of(
                AnswerChanges.between("A.java", "class A {\n" + moved + "}\n", "class A {\n}\n")
                        .orElseThrow(),
                AnswerChanges.between("B.java", "class B {\n}\n", "class B {\n" + moved + "}\n")
                        .orElseThrow()));

        assertThat(told.stream()
                        .flatMap(c -> c.hunks().stream())
                        .flatMap(h -> h.lines().stream())
                        .filter(l -> l.kind() != Kind.KEPT))
                .extracting(ChangedLine::nature)
                .containsExactly(Nature.MOVED, Nature.MOVED);
    }

    /** A twin is used once: what was copied was not moved twice. */
    @Test
    public void aCopyIsNoMove() {
        String line = "        log.info(\"the lamp is out of order\");\n";
        List<ChangedLine> lines =
                between(line + "a();\nb();\nc();\nd();\n", "a();\nb();\n" + line + "c();\nd();\n" + line);

        assertThat(lines)
                .filteredOn(l -> l.kind() == Kind.ADDED)
                .extracting(ChangedLine::nature)
                .containsExactlyInAnyOrder(Nature.MOVED, Nature.PLAIN);
    }
}
