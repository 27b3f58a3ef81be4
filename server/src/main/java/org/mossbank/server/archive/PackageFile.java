package org.mossbank.server.archive;

import java.util.Locale;
import org.mossbank.server.files.Table;
import org.mossbank.server.rubric.RubricHistory;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** The file that says what an archive holds, and how to read it (Data Package standard, version 2.0). */
final class PackageFile {
    private static final String PACKAGE_PROFILE = "https://datapackage.org/profiles/2.0/datapackage.json";

    private PackageFile() {}

    static ObjectNode of(StudyArchive study) {
        ObjectNode json = JsonMapper.shared().createObjectNode();
        json.put("$schema", PACKAGE_PROFILE);
        json.put("name", slug(study.head().title()));
        json.put("title", study.head().title());
        json.putObject("mossbank").put("format", 1);
        ArrayNode resources = json.putArray("resources");
        resources
                .addObject()
                .put("name", Schemas.STUDY)
                .put("path", "study.json")
                .put("mediatype", "application/json");
        if (!study.history().isEmpty()) {
            resources
                    .addObject()
                    .put("name", RubricHistory.NAME)
                    .put("path", RubricHistory.NAME + ".json")
                    .put("mediatype", "application/json");
        }
        for (Table<?> table : Schemas.TABLES) {
            ObjectNode resource = resources.addObject();
            resource.put("name", table.name());
            resource.put("path", table.name() + ".csv");
            resource.put("type", "table");
            resource.put("mediatype", "text/csv");
            resource.put("encoding", "utf-8");
            resource.set("schema", table.schema().json());
        }
        return json;
    }

    private static String slug(String title) {
        String slug =
                title.toLowerCase(Locale.ROOT).replaceAll("[^a-z0-9]+", "-").replaceAll("^-|-$", "");
        return slug.isEmpty() ? "study" : slug.substring(0, Math.min(60, slug.length()));
    }
}
