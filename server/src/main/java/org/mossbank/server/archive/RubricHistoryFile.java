package org.mossbank.server.archive;

import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ArrayNode;
import tools.jackson.databind.node.ObjectNode;

/** Writes the versions of the rubric that the tables do not hold. */
final class RubricHistoryFile {
    private RubricHistoryFile() {}

    static ObjectNode of(StudyArchive study) {
        ObjectNode json = JsonMapper.shared().createObjectNode();
        ArrayNode versions = json.putArray("versions");
        for (StudyArchive.ArchiveRubric version : study.history()) {
            ObjectNode one = versions.addObject();
            one.put("version", version.head().version());
            one.put("publishedAt", String.valueOf(version.head().publishedAt()));
            one.put("note", version.head().note());
            ArrayNode criteria = one.putArray("criteria");
            version.criteria().forEach(c -> criterion(criteria.addObject(), c));
        }
        return json;
    }

    private static void criterion(ObjectNode json, StudyArchive.ArchiveCriterion criterion) {
        json.put("key", criterion.key());
        json.put("name", criterion.name());
        json.put("question", criterion.question());
        json.put("weight", StudyFile.plain(criterion.weight()));
        if (criterion.floor() != null) {
            json.put("floor", StudyFile.plain(criterion.floor()));
        }
        ArrayNode levels = json.putArray("levels");
        for (StudyArchive.ArchiveLevel level : criterion.levels()) {
            ObjectNode one = levels.addObject().put("name", level.name());
            ObjectNode anchors = one.putObject("anchors");
            level.anchors().forEach(anchors::put);
        }
        if (!criterion.kinds().isEmpty()) {
            ArrayNode kinds = json.putArray("kinds");
            criterion.kinds().forEach(kinds::add);
        }
        ArrayNode traits = json.putArray("traits");
        criterion.traits().forEach(traits::add);
    }
}
