package org.mossbank.server.shared;

import org.springframework.boot.jackson.JacksonComponent;
import tools.jackson.core.JsonParser;
import tools.jackson.databind.DeserializationContext;
import tools.jackson.databind.deser.jdk.StringDeserializer;
import tools.jackson.databind.deser.std.StdScalarDeserializer;
import tools.jackson.databind.exc.MismatchedInputException;

/** Refuses the one character that the database keeps in no text, wherever a text comes in. */
final class UnstorableText extends MismatchedInputException {
    static final String MUST_NOT = "must not contain the character U+0000";
    private static final long serialVersionUID = 1L;

    private UnstorableText(JsonParser parser) {
        super(parser, MUST_NOT, String.class);
    }

    @JacksonComponent
    static final class Texts extends StdScalarDeserializer<String> {
        Texts() {
            super(String.class);
        }

        @Override
        public String deserialize(JsonParser parser, DeserializationContext context) {
            String text = StringDeserializer.instance.deserialize(parser, context);
            if (text != null && text.indexOf('\0') >= 0) {
                throw new UnstorableText(parser);
            }
            return text;
        }
    }
}
