package org.mossbank.server.grading.desk;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.grading.Confidence;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;
import org.mossbank.server.grading.sheet.Grade;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KeyPoint;
import org.mossbank.server.prompt.StartingFile;
import org.mossbank.server.study.RaterTerms;

/**
 * A sheet as its rater's browser gets it. These types have no room for a candidate's id, price or timing, nor for the order
 * in which answers came in; answer ids are made for this sheet alone. Candidates' names are in one place only, as choices of
 * the source guess, and there without any tie to an answer.
 *
 * @param place        when this rater gets it, from 1
 * @param ofSheets     how many sheets the rater has in this study
 * @param calibration  the calibration that it is for; absent where it counts
 * @param withdrawn    why the lead withdrew it; absent unless they did
 * @param afterwards   whether something is shown or asked once it is sent in
 * @param tried        whether there are trials of its answers that the rater sees, from the start or later
 * @param guessChoices names to guess from; absent until the sheet is sent in, and unless the brief asks
 */
public record SheetView(
        SheetId id,
        StudyId studyId,
        String studyTitle,
        int place,
        int ofSheets,
        @Nullable Integer calibration,
        boolean sent,
        boolean roundClosed,
        boolean setAside,
        @Nullable String withdrawn,
        RaterTerms.ReasonRule reasons,
        boolean afterwards,
        boolean tried,
        PromptOnSheet prompt,
        List<CriterionOnSheet> criteria,
        List<AnswerOnSheet> answers,
        @Nullable List<String> guessChoices) {

    /**
     * What the raters read of a prompt.
     *
     * @param referenceAnswer absent until the rater's own sheet is sent in, and unless the brief allows it
     */
    public record PromptOnSheet(
            String title,
            String kind,
            String language,
            String request,
            List<String> constraints,
            List<StartingFile> startingFiles,
            List<KeyPoint> keyPoints,
            @Nullable String referenceAnswer) {}

    /**
     * A criterion with the anchors for this kind of prompt, and the kinds of remark that belong to it.
     *
     * @param fromKeyPoints whether key points speak for its level: the criterion of correctness, or else the gate's
     */
    public record CriterionOnSheet(
            CriterionId id,
            String name,
            String question,
            List<LevelOnSheet> levels,
            List<String> traits,
            boolean fromKeyPoints) {}

    public record LevelOnSheet(
            int level, String name, @Nullable String anchor) {}

    /**
     * @param hasCode whether there is code in it that can work or not
     * @param guess   absent until the sheet is sent in, and unless the brief asks
     */
    public record AnswerOnSheet(
            SheetAnswerId id,
            int number,
            Outcome outcome,
            String text,
            boolean hasCode,
            String reason,
            long reasonRevision,
            WorksOnSheet works,
            PreferenceOnSheet preference,
            List<GradeOnSheet> grades,
            List<CoverageOnSheet> coverage,
            List<RemarkOnSheet> remarks,
            @Nullable GuessOnSheet guess) {}

    public record GradeOnSheet(
            CriterionId criterionId,
            @Nullable Integer level,
            boolean notApplicable,
            @Nullable Confidence confidence,
            long revision) {
        public static GradeOnSheet of(Grade grade) {
            Mark mark = grade.mark();
            return new GradeOnSheet(
                    grade.key().criterionId(), mark.level(), mark.notApplicable(), mark.confidence(), grade.revision());
        }
    }

    /** A reason and the revision it now has. */
    public record ReasonOnSheet(String text, long revision) {}

    /** @param why they say otherwise than trials do; empty if they did not say */
    public record WorksOnSheet(@Nullable Works works, String why, long revision) {}

    /** @param place in the order of preference, from 1; absent until given */
    public record PreferenceOnSheet(@Nullable Integer place, long revision) {}

    /** @param point which key point, from 0 */
    public record CoverageOnSheet(int point, @Nullable Verdict verdict, long revision) {}

    /** @param remark absent if it was removed */
    public record RemarkOnSheet(UUID id, @Nullable RemarkContent remark, long revision) {}

    /** @param choice which of the choices, from 0; absent if there is no guess */
    public record GuessOnSheet(@Nullable Integer choice, boolean noIdea, long revision) {}

    /**
     * What was saved.
     *
     * @param revision that this change made
     * @param now      what stands there now, in the form of its cell, if another window's change has come after it; that
     *                 can only be when this one had been made before and is sent again
     */
    public record Saved(long revision, @Nullable Object now) {}
}
