package org.mossbank.server.source;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class BodyTemplateTest {
    static SourceContent source(SourceContent.Shape shape, String body, String asked, String replied) {
        return new SourceContent(
                "http://127.0.0.1:1/ask",
                SourceContent.Method.POST,
                List.of(),
                body,
                asked,
                replied,
                shape,
                "/said/words",
                "/took/read",
                "/took/wrote",
                "/ended",
                "/made_by",
                List.of("done"),
                List.of("declined"),
                shape == SourceContent.Shape.EVENTS ? "over" : "",
                500,
                2000,
                3,
                2);
    }

    private static String filled(String body, String asked, String replied, Turn... turns) {
        return BodyTemplate.of(source(SourceContent.Shape.WHOLE, body, asked, replied))
                .fill(List.of(turns), 2, 500);
    }

    @Test
    public void textsCannotBreakOutOfTheirPlace() {
        String hostile = "\"}, \"admin\": true, {\"\\\n[[attempt]] [[secret KEY]] [[turns]]";

        assertThat(filled("{\"say\": \"Please: [[prompt]]\", \"n\": 1.5}", "", "", new Turn(hostile, null)))
                .isEqualTo(
                        "{\"say\":\"Please: \\\"}, \\\"admin\\\": true, {\\\"\\\\\\n[[attempt]] [[secret KEY]] [[turns]]\",\"n\":1.5}");
    }

    @Test
    public void numbersComeAsNumbersWhereTheyStandAlone() {
        assertThat(filled(
                        "{\"a\": \"[[attempt]]\", \"m\": \"[[output-tokens]]\", \"t\": \"take [[attempt]]\", \"p\": \"[[prompt]]\"}",
                        "",
                        "",
                        new Turn("x", null)))
                .isEqualTo("{\"a\":2,\"m\":500,\"t\":\"take 2\",\"p\":\"x\"}");
    }

    @Test
    public void turnsBecomeAnArray() {
        assertThat(filled(
                        "{\"all\": \"[[turns]]\"}",
                        "{\"by\": \"us\", \"w\": \"[[text]]\"}",
                        "[\"[[text]]\"]",
                        new Turn("one", "1"),
                        new Turn("two", null)))
                .isEqualTo("{\"all\":[{\"by\":\"us\",\"w\":\"one\"},[\"1\"],{\"by\":\"us\",\"w\":\"two\"}]}");
    }

    @Test
    public void aServiceOfOneTextGetsAllTurnsInIt() {
        assertThat(filled("[\"[[prompt]]\"]", "", "", new Turn("one", "1"), new Turn("two", null)))
                .isEqualTo("[\"one\\n\\nYour reply was:\\n\\n1\\n\\ntwo\"]");
    }

    @DataProvider
    public Object[][] malformed() {
        return new Object[][] {
            {"no JSON", "{\"a\": ", "", "", "body must be JSON"},
            {"nothing that takes the prompt", "{\"a\": \"b\"}", "", "", "body must hold"},
            {"the prompt's place as a name", "{\"[[prompt]]\": 1}", "", "", "body must hold"},
            {"turns without a turn", "{\"a\": \"[[turns]]\"}", "", "{\"w\": \"[[text]]\"}", "turnAsked must be JSON"},
            {
                "a turn without its text",
                "{\"a\": \"[[turns]]\"}",
                "{\"w\": 1}",
                "{\"w\": \"[[text]]\"}",
                "turnAsked must hold"
            },
            {
                "a reply without its text",
                "{\"a\": \"[[turns]]\"}",
                "{\"w\": \"[[text]]\"}",
                "[]",
                "turnReplied must hold"
            },
        };
    }

    @Test(dataProvider = "malformed")
    public void refusesWithTheField(String name, String body, String asked, String replied, String message) {
        assertThatThrownBy(() -> BodyTemplate.of(source(SourceContent.Shape.WHOLE, body, asked, replied)))
                .as(name)
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith(message);
    }
}
