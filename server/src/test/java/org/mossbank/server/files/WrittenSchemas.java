package org.mossbank.server.files;

import static org.assertj.core.api.Assertions.assertThat;

import java.io.IOException;
import java.nio.file.Files;
import java.nio.file.Path;
import org.mossbank.server.ServerTest;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** The schemas of tables as the documentation has them. To renew them: {@code -Dmossbank.schemas.write=true}. */
public final class WrittenSchemas {
    public static final Path FOLDER = ServerTest.ROOT.resolve("docs/formats/schemas");

    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private WrittenSchemas() {}

    public static void assertWritten(Table<?> table) throws IOException {
        Path file = FOLDER.resolve(table.name() + ".schema.json");
        String text = MAPPER.writeValueAsString(table.schema().json()) + "\n";
        if (Boolean.getBoolean("mossbank.schemas.write")) {
            Files.writeString(file, text);
        }
        assertThat(text).isEqualTo(Files.readString(file));
    }
}
