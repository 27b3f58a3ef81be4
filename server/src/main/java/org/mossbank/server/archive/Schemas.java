package org.mossbank.server.archive;

import com.networknt.schema.Schema;
import com.networknt.schema.SchemaRegistry;
import com.networknt.schema.SpecificationVersion;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.files.TableSchema;
import tools.jackson.databind.json.JsonMapper;

/** The schemas of the format, the same files that its documentation shows. */
final class Schemas {
    /** Tables of an archive, in the order in which they are written. */
    static final List<String> TABLES = List.of(
            "kinds",
            "prompts",
            "key-points",
            "constraints",
            "starting-code",
            "follow-ups",
            "candidates",
            "settings",
            "considerations",
            "sources",
            "source-headers",
            "answers",
            "turns",
            "runs",
            "run-cells",
            "masking-words",
            "masks",
            "criteria",
            "levels",
            "anchors",
            "traits",
            "raters",
            "expectations",
            "read-backs",
            "sheets",
            "positions",
            "grades",
            "reasons",
            "judgements",
            "coverage",
            "remarks");

    static final List<String> REQUIRED_TABLES =
            List.of("kinds", "prompts", "candidates", "answers", "criteria", "raters");

    /** What a study must at least have while it is being prepared. */
    static final List<String> TABLES_WHILE_PREPARING = List.of("kinds");

    static final List<String> TABLES_OF_A_ROUND =
            List.of("sheets", "positions", "grades", "reasons", "judgements", "coverage", "remarks");

    static final String STUDY = "study";
    static final String RUBRIC_HISTORY = "rubric-history";

    /** Everything that an archive can name. */
    static final List<String> RESOURCES = resources();

    private static List<String> resources() {
        List<String> all = new ArrayList<>(List.of(STUDY, RUBRIC_HISTORY));
        all.addAll(TABLES);
        return List.copyOf(all);
    }

    private static final SchemaRegistry REGISTRY =
            SchemaRegistry.withDefaultDialect(SpecificationVersion.DRAFT_2020_12);

    static final Schema PACKAGE_FILE = jsonSchema("datapackage");
    static final Schema STUDY_FILE = jsonSchema(STUDY);
    static final Schema RUBRIC_HISTORY_FILE = jsonSchema(RUBRIC_HISTORY);
    private static final Map<String, TableSchema> TABLE_SCHEMAS = tables();

    private Schemas() {}

    static TableSchema table(String name) {
        return TABLE_SCHEMAS.get(name);
    }

    private static Map<String, TableSchema> tables() {
        Map<String, TableSchema> tables = new LinkedHashMap<>();
        TABLES.forEach(
                name -> tables.put(name, new TableSchema(JsonMapper.shared().readTree(resource(name)))));
        return tables;
    }

    private static Schema jsonSchema(String name) {
        return REGISTRY.getSchema(JsonMapper.shared().readTree(resource(name)));
    }

    private static byte[] resource(String name) {
        try (InputStream in = Schemas.class.getResourceAsStream("/archive/schemas/" + name + ".schema.json")) {
            if (in == null) {
                throw new IllegalStateException("the server's jar lacks the schema " + name);
            }
            return in.readAllBytes();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }
}
