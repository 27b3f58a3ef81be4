package org.mossbank.server.reconciliation;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Confidence;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KeyPoint;

/**
 * A split with its talk. These types have no room for a candidate, nor for anything that tells one answer of the study
 * from another.
 *
 * @param answer   as raters read it
 * @param raters   by name
 * @param words    oldest first
 * @param closing  absent while it is open
 * @param talking  whether something may be said and done here now
 * @param leads    whether the reader may close it
 * @param stands   whether the reader is one of those who gave a grade
 * @param distance how far the original grades lie apart, in levels
 */
record SplitPage(
        UUID id,
        StudyId studyId,
        String studyTitle,
        SplitPrompt prompt,
        SplitCriterion criterion,
        String answer,
        List<SplitRater> raters,
        List<SpokenWord> words,
        List<SplitLook> looks,
        SplitClosing.State state,
        @Nullable SplitClosing closing,
        int distance,
        boolean talking,
        boolean leads,
        boolean stands) {

    /** What the answer is about. */
    record SplitPrompt(String title, KindId kindId, String kind, String request, List<KeyPoint> keyPoints) {}

    /** @param levels from 0 up */
    record SplitCriterion(String key, String name, String question, List<AnchoredLevel> levels) {}

    /** @param anchor what it looks like in answers to this kind of prompt; empty where there is none */
    record AnchoredLevel(int level, String name, String anchor) {}

    /**
     * What a rater gave, and where they stand since.
     *
     * @param own     whether it is the reader
     * @param level   absent when not applicable
     * @param stances oldest first; the last counts
     */
    record SplitRater(
            String name,
            boolean own,
            @Nullable Integer level,
            @Nullable Confidence confidence,
            String reason,
            @Nullable Works works,
            List<SplitVerdict> coverage,
            List<RemarkContent> remarks,
            List<StanceTaken> stances) {}

    /** @param point which key point, from 0 */
    record SplitVerdict(int point, Verdict verdict) {}

    /** @param kept whether it is the level they gave at first */
    record StanceTaken(int level, boolean kept, String reason, Instant at) {}

    /** @param own whether the reader said it */
    record SpokenWord(UUID id, String by, boolean own, String words, Instant at) {}

    /**
     * A blind look.
     *
     * @param level  absent until it is given
     * @param reason empty until then
     */
    record SplitLook(String name, Instant askedAt, @Nullable Integer level, String reason) {}
}
