package org.mossbank.server.calibration;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Confidence;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KeyPoint;
import org.mossbank.server.shared.Figure;

/**
 * What is seen of a calibration. These types have no room for a candidate, nor for an id that tells one answer of the study from
 * another: answers are named by their place.
 */
final class CalibrationViews {
    private CalibrationViews() {}

    /** What happens in a calibration, or waits for somebody. */
    enum Stage {
        /** Somebody has not sent in: nobody sees what others gave. */
        GRADING,
        /** All see each other's grades and talk. */
        TALK,
        /** It is graded again. */
        AGAIN,
        /** The round has been opened. */
        OVER
    }

    /**
     * A calibration in a list.
     *
     * @param prompts titles
     * @param sent    sheets that are sent in, of those that all are to send in now
     * @param open    whether whoever asks may see what others gave
     * @param toGrade sheets that whoever asks has still to send in
     * @param reached whether agreement reached the floor on grades that were given before anyone saw another's; absent until all are in, and in the list
     *                over all studies
     */
    record CalibrationSummary(
            StudyId studyId,
            String studyTitle,
            int number,
            Stage stage,
            List<String> prompts,
            int sent,
            int sheets,
            boolean open,
            int toGrade,
            @Nullable Boolean reached) {}

    /**
     * A calibration as far as whoever asks may see it.
     *
     * @param waitsFor  those who have not sent in, for the lead alone
     * @param agreement by criterion; empty until all are in
     * @param distances of all raters for the lead, of a rater for themselves
     * @param answers   by prompt and place; empty until all are in and whoever asks has graded them
     * @param talking   whether something may be said and settled now
     * @param leads     whether whoever asks may settle levels and have it graded again
     * @param mayRepeat whether it may be graded again now
     */
    record CalibrationPage(
            CalibrationSummary summary,
            Calibrations.CalibrationCourse course,
            List<Awaited> waitsFor,
            List<RulerCriterion> criteria,
            List<AgreementBefore> agreement,
            List<DistanceOf> distances,
            List<String> raters,
            List<AnswerLevels> answers,
            boolean talking,
            boolean leads,
            boolean mayRepeat) {}

    /**
     * A prompt that was kept in the bank.
     *
     * @param version of it in the bank
     * @param answers that were kept with it
     */
    record KeptPrompt(String title, int version, int answers) {}

    /** Somebody who has not sent in. */
    record Awaited(AccountId raterId, String name) {}

    /** A criterion that answers are graded on. */
    record RulerCriterion(String key, String name, int highestLevel) {}

    /**
     * Agreement on a criterion before anybody saw another's grades, and after the talk.
     *
     * @param reached whether the value before is at the floor or above; absent where it cannot be computed, or the criterion has no weight
     * @param after   absent unless it was graded again by all
     */
    record AgreementBefore(
            String criterion,
            String name,
            double floor,
            Figure before,
            @Nullable Boolean reached,
            @Nullable Figure after) {}

    /**
     * How far a rater lies from the others and from the reference, in percent of the scale.
     *
     * @param own whether it is whoever asks
     */
    record DistanceOf(String name, boolean own, DistancePair fromOthers, DistancePair fromReference) {}

    /** Before the talk and after it. */
    record DistancePair(
            @Nullable DistanceView before, @Nullable DistanceView after) {}

    /**
     * @param apart  mean of how far, whichever way, in percent of the scale
     * @param above  mean of how far above, in percent of the scale; negative is below
     * @param grades how many it is the mean of
     */
    record DistanceView(double apart, double above, int grades) {}

    /**
     * What was given to an answer.
     *
     * @param place  of the answer in the calibration, from 1
     * @param prompt title of its prompt
     * @param ofPrompt place among the answers to its prompt, from 1
     * @param cells  by criterion, those that are for its kind
     * @param words  said of the answer as a whole
     */
    record AnswerLevels(int place, String prompt, int ofPrompt, List<CellLevels> cells, int words) {}

    /**
     * An answer on a criterion.
     *
     * @param levels   in the order of the page's raters; absent where not applicable or not graded
     * @param after    the same after the talk; empty unless it was graded again
     * @param distance between the highest and the lowest before the talk
     */
    record CellLevels(
            String criterion,
            List<@Nullable Integer> levels,
            List<@Nullable Integer> after,
            int distance,
            @Nullable Integer reference,
            @Nullable Integer settled,
            int words) {}

    /**
     * An answer with all that raters gave and say.
     *
     * @param text  as raters read it
     * @param words oldest first
     * @param last  how many answers the calibration has
     */
    record AnswerTalk(
            StudyId studyId,
            String studyTitle,
            int number,
            int place,
            int last,
            int ofPrompt,
            AskedOf prompt,
            List<AnchoredCriterion> criteria,
            String text,
            List<GivenByRater> raters,
            List<AgreedView> agreed,
            List<SaidWord> words,
            boolean talking,
            boolean leads) {}

    record AskedOf(String title, KindId kindId, String kind, String request, List<KeyPoint> keyPoints) {}

    /** @param levels from 0 up */
    record AnchoredCriterion(String key, String name, String question, List<LevelAnchor> levels) {}

    /** @param anchor what it looks like in answers to this kind of prompt; empty where there is none */
    record LevelAnchor(int level, String name, String anchor) {}

    /** What a rater gave; before the talk, and again. */
    record GivenByRater(
            String name,
            boolean own,
            List<GivenLevel> levels,
            List<GivenLevel> after,
            String reason,
            @Nullable Works works,
            List<PointFound> coverage,
            List<RemarkContent> remarks) {}

    /** @param level absent when not applicable */
    record GivenLevel(
            String criterion,
            @Nullable Integer level,
            @Nullable Confidence confidence) {}

    /** @param point which key point, from 0 */
    record PointFound(int point, Verdict verdict) {}

    record AgreedView(String criterion, Calibrations.Source source, int level, String reason, String by, Instant at) {}

    /**
     * @param criterion key; absent for the answer as a whole
     * @param own       whether whoever asks said it
     */
    record SaidWord(
            UUID id,
            String by,
            boolean own,
            @Nullable String criterion,
            Calibrations.@Nullable AtLines lines,
            String words,
            Instant at) {}
}
