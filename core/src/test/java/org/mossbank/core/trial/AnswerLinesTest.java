package org.mossbank.core.trial;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import org.testng.annotations.Test;

public class AnswerLinesTest {
    private static final String ANSWER = """
            It adds up.

            ```java
            int a() {
                return 1;
            }
            ```

            And then:

            ```diff
            --- a/T.java
            +++ b/T.java
            @@ -1,2 +1,2 @@
             int b() {
            +    return 1;
             }
            ```
            """;

    @Test
    public void aLineIsFoundThroughAWrapper() {
        List<String> file = List.of("class Loose {", "int a() {", "    return 1;", "}", "}");

        assertThat(AnswerLines.of(ANSWER).find(file, 2)).hasValue(4);
        assertThat(AnswerLines.of(ANSWER).find(file, 3)).hasValue(5);
    }

    @Test
    public void ofLinesThatReadAlikeTheOneWithMostAround() {
        List<String> file = List.of("int b() {", "    return 1;", "}");

        assertThat(AnswerLines.of(ANSWER).find(file, 2)).hasValue(16);
    }

    @Test
    public void whatTheWrapperAddsIsInNoAnswer() {
        assertThat(AnswerLines.of(ANSWER).find(List.of("class Loose {", "int a() {"), 1))
                .isEmpty();
        assertThat(AnswerLines.of(ANSWER).find(List.of(""), 1)).isEmpty();
        assertThat(AnswerLines.of(ANSWER).find(List.of("x"), 7)).isEmpty();
    }
}
