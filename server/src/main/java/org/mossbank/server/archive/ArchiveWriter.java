package org.mossbank.server.archive;

import java.util.Comparator;
import org.mossbank.server.answer.AnswerRows;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateRows;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.grading.rows.SheetRows;
import org.mossbank.server.masking.MaskRows;
import org.mossbank.server.prompt.PromptRows;
import org.mossbank.server.readback.ReadBackRows;
import org.mossbank.server.rubric.RubricHistory;
import org.mossbank.server.rubric.RubricRows;
import org.mossbank.server.run.RunRows;
import org.mossbank.server.source.SourceRows;
import org.mossbank.server.study.PeopleRows;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;
import tools.jackson.databind.node.ObjectNode;

/** Turns a study into the files of an archive; the same study gives the same bytes. */
final class ArchiveWriter {
    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private ArchiveWriter() {}

    static ArchiveFiles write(StudyArchive study) {
        WrittenFiles out = new WrittenFiles(Schemas.TABLES);
        putJson(out, ArchiveFiles.PACKAGE, PackageFile.of(study));
        putJson(out, Schemas.STUDY + ".json", StudyFile.of(study.head()));
        if (!study.history().isEmpty()) {
            putJson(out, RubricHistory.NAME + ".json", RubricHistory.json(study.history()));
        }
        writeRows(study, out);
        return ArchiveFiles.of(out.all());
    }

    private static void putJson(WrittenFiles out, String path, ObjectNode json) {
        out.put(path, MAPPER.writeValueAsString(json) + "\n");
    }

    private static void writeRows(StudyArchive study, WrittenFiles out) {
        study.kinds().forEach(k -> PromptRows.writeKind(k, out));
        study.prompts().forEach(p -> PromptRows.write(p, out));
        study.candidates().forEach(c -> CandidateRows.write(c, out));
        study.sources().forEach((candidate, source) -> SourceRows.write(candidate, source, out));
        study.answers().stream()
                .sorted(Comparator.comparing(Answers.NewAnswer::key))
                .forEach(a -> AnswerRows.write(a, out));
        study.specimens().forEach(s -> AnswerRows.write(s, out));
        study.runs().forEach(r -> RunRows.write(r, out));
        MaskRows.write(study.masking(), out);
        study.rubric().criteria().forEach(c -> RubricRows.write(c, out));
        PeopleRows.write(study.people(), out);
        study.readBacks().forEach(r -> ReadBackRows.write(r, out));
        study.sheets().forEach(s -> SheetRows.write(s, out));
        study.kept().write(out);
    }
}
