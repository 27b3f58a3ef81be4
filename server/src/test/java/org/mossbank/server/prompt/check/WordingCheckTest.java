package org.mossbank.server.prompt.check;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.prompt.KeyPoint;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.StartingFile;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class WordingCheckTest {
    private static final KeyPoint POINT = KeyPoint.of(KeyPoint.Stance.MUST_CONTAIN, "the cause");
    private static final StartingFile FILE = new StartingFile("A.java", "one\ntwo\n");

    private static PromptContent content(
            String language,
            String request,
            List<String> constraints,
            List<StartingFile> files,
            List<KeyPoint> points) {
        return new PromptContent(
                "T", language, request, List.of(), null, constraints, files, null, points, "", List.of());
    }

    private static List<String> types(String kind, PromptContent content) {
        return WordingCheck.check(kind, content).stream()
                .map(PromptWarning::type)
                .toList();
    }

    private static KeyPoint at(@Nullable String file, @Nullable Integer from, @Nullable Integer to) {
        return new KeyPoint(KeyPoint.Stance.MUST_CONTAIN, "the cause", 1, file, from, to);
    }

    @Test
    public void aSoundPromptHasNoWarning() {
        PromptContent sound = content(
                "Java 17",
                "Find the cause and fix it.",
                List.of("No new library"),
                List.of(FILE),
                List.of(at("A.java", 1, 2)));
        assertThat(types("debugging", sound)).isEmpty();
        assertThat(types("explanation", sound)).isEmpty();
    }

    @Test
    public void gapsAreNamed() {
        assertThat(types("debugging", content("", "Fix it.", List.of(), List.of(), List.of())))
                .containsExactly("no-key-points", "no-language-version");
        assertThat(types("debugging", content("Java", "Fix it.", List.of(), List.of(), List.of(POINT))))
                .containsExactly("no-language-version");
    }

    @Test
    public void keyPointsMustPointAtWhatIsThere() {
        assertThat(types("review", content("Java 17", "R", List.of(), List.of(FILE), List.of(at("B.java", 1, 1)))))
                .containsExactly("key-point-without-file");
        assertThat(types("review", content("Java 17", "R", List.of(), List.of(FILE), List.of(at("A.java", 2, 3)))))
                .containsExactly("key-point-beyond-file");
    }

    @Test
    public void anExplanationNeedsCodeAndKeyPointsInIt() {
        assertThat(types("explanation", content("Java 17", "Explain.", List.of(), List.of(), List.of(POINT))))
                .containsExactly("nothing-to-explain");
        assertThat(types(
                        "explanation",
                        content("Java 17", "Explain:\n```java\nint x;\n```", List.of(), List.of(), List.of(POINT))))
                .isEmpty();
        assertThat(types("explanation", content("Java 17", "Explain.", List.of(), List.of(FILE), List.of(POINT))))
                .containsExactly("key-point-nowhere");
    }

    @DataProvider
    public static Object[][] contradictions() {
        return new Object[][] {
            {"forbids what is asked", "No new library", "Use the date library for this.", true},
            {
                "asks for what is forbidden",
                "Answer with a table of the defects",
                "Do not write any table of defects.",
                true
            },
            {"both forbid", "No new library", "Do it without a library.", false},
            {"about something else", "No new library", "Rename the method.", false},
            {"shares one word of four", "Callers in other modules stay", "Do not rename callers.", false},
            {"only in the code", "No new library", "Fix:\n```\nuse library\n```", false},
            {"plural and singular", "Do not change the signatures", "Change the signature of send.", true},
        };
    }

    @Test(dataProvider = "contradictions")
    public void wordingAgainstAConstraint(String name, String constraint, String request, boolean warns) {
        List<String> types =
                types("debugging", content("Java 17", request, List.of(constraint), List.of(), List.of(POINT)));
        assertThat(types.contains("against-constraint")).as(name).isEqualTo(warns);
    }
}
