package org.mossbank.server.grading;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.prompt.KeyPoint;
import org.mossbank.server.prompt.StartingFile;

/**
 * A sheet as its rater's browser gets it. These types have no room for a candidate's name, id, price or timing, nor for
 * the order in which answers came in; answer ids are made for this sheet alone.
 *
 * @param place    when this rater gets it, from 1
 * @param ofSheets how many sheets the rater has in this study
 */
record SheetView(
        UUID id,
        UUID studyId,
        String studyTitle,
        int place,
        int ofSheets,
        boolean sent,
        boolean roundClosed,
        boolean setAside,
        PromptOnSheet prompt,
        List<CriterionOnSheet> criteria,
        List<AnswerOnSheet> answers) {

    /** What the raters read of a prompt; the reference answer is for the lead. */
    record PromptOnSheet(
            String title,
            String kind,
            String language,
            String request,
            List<String> constraints,
            List<StartingFile> startingFiles,
            List<KeyPoint> keyPoints) {}

    /** A criterion with the anchors for this kind of prompt. */
    record CriterionOnSheet(UUID id, String name, String question, List<LevelOnSheet> levels) {}

    record LevelOnSheet(int level, String name, @Nullable String anchor) {}

    record AnswerOnSheet(
            UUID id,
            int number,
            Outcome outcome,
            String text,
            String reason,
            long reasonRevision,
            List<GradeOnSheet> grades) {}

    record GradeOnSheet(UUID criterionId, @Nullable Integer level, boolean notApplicable, long revision) {
        static GradeOnSheet of(Grade grade) {
            return new GradeOnSheet(
                    grade.key().criterionId(),
                    grade.mark().level(),
                    grade.mark().notApplicable(),
                    grade.revision());
        }

        static GradeOnSheet none(UUID criterion) {
            return new GradeOnSheet(criterion, null, false, 0);
        }
    }
}
