package org.mossbank.server.archive;

import static org.assertj.core.api.Assertions.assertThat;

import java.nio.file.Files;
import java.nio.file.Path;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.mossbank.server.ServerTest;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.WrittenSchemas;
import org.testng.annotations.Test;
import tools.jackson.databind.json.JsonMapper;

/** What the documentation shows of an archive's tables is what the server reads and writes. */
public class SchemaFilesTest {
    private static final Path FORMAT = ServerTest.ROOT.resolve("docs/formats/archive.md");

    @Test
    public void eachTableHasItsSchemaInTheDocumentation() throws Exception {
        for (Table<?> table : Schemas.TABLES) {
            WrittenSchemas.assertWritten(table);
        }
    }

    @Test
    public void noSchemaIsOfATableThatIsGone() throws Exception {
        Set<String> known = Schemas.TABLES.stream().map(Table::name).collect(Collectors.toSet());
        try (Stream<Path> files = Files.list(WrittenSchemas.FOLDER)) {
            assertThat(files.filter(f ->
                                    JsonMapper.shared().readTree(f.toFile()).has("foreignKeys"))
                            .map(f -> f.getFileName().toString().replace(".schema.json", "")))
                    .isSubsetOf(known);
        }
    }

    @Test
    public void theFormatsPageNamesEachTable() throws Exception {
        String page = Files.readString(FORMAT);

        assertThat(Schemas.TABLES).allSatisfy(t -> assertThat(page).contains("(schemas/" + t.name() + ".schema.json)"));
    }

    @Test
    public void everyKeyOfAnotherTableIsThatOfOne() {
        Set<String> columns = Schemas.TABLES.stream()
                .flatMap(t -> t.schema().columnNames().stream().map(c -> t.name() + "." + c))
                .collect(Collectors.toSet());

        assertThat(Schemas.TABLES)
                .flatExtracting(t -> t.schema().foreignKeys())
                .extracting(k -> k.table() + "." + k.otherColumn())
                .isSubsetOf(columns);
    }
}
