package org.mossbank.server.archive;

import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.prompt.ReadBackVerdict;
import org.mossbank.server.prompt.Wording;
import org.mossbank.server.run.Runs;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.study.Brief;
import org.mossbank.server.study.Reopening;

/**
 * A study as an archive holds it: everything and everybody by key, nothing by database id.
 *
 * @param rubric  the version that counts
 * @param history the other versions, oldest first
 * @param sheets  by rater, then place, each with its answers in their order
 */
record StudyArchive(
        Head head,
        List<Prompts.NewKind> kinds,
        List<ArchivePrompt> prompts,
        List<ArchiveCandidate> candidates,
        List<Answers.NewAnswer> answers,
        ArchiveCollection collection,
        ArchiveMasking masking,
        ArchiveRubric rubric,
        List<ArchiveRubric> history,
        People people,
        List<ArchiveSheet> sheets) {

    /**
     * What stands in study.json.
     *
     * @param preparing     whether the round is not open
     * @param briefClosedAt absent while the brief is open
     */
    record Head(
            String title,
            Brief brief,
            boolean preparing,
            @Nullable Instant briefClosedAt,
            List<Reopening> reopenings,
            long seed,
            RubricHead rubric,
            RoundHead round) {}

    /**
     * What raters do not read.
     *
     * @param words words that give candidates away
     * @param masks decisions by answer, in the order of the text
     */
    record ArchiveMasking(List<String> words, SortedMap<String, List<Masking.Decided>> masks) {}

    /**
     * How answers were collected.
     *
     * @param mostFollowUps absent while the study has no rule
     * @param sources       by candidate
     */
    record ArchiveCollection(
            @Nullable Integer mostFollowUps, SortedMap<String, SourceContent> sources, List<ArchiveRun> runs) {}

    /** A run with its cells in their order. */
    record ArchiveRun(Runs.RunHead head, List<ArchiveCell> cells) {}

    /**
     * @param state  waiting, done or turned-away
     * @param ownFollowUp what was asked for this answer alone
     * @param answer key; absent if there is none
     */
    record ArchiveCell(
            int group,
            String prompt,
            String candidate,
            int attempt,
            String state,
            @Nullable String ownFollowUp,
            int turn,
            int tries,
            BigDecimal spentCost,
            long spentTokens,
            String notes,
            @Nullable String lateReply,
            @Nullable String answer) {}

    record RubricHead(int version, @Nullable Instant publishedAt, String note) {}

    record RoundHead(
            @Nullable Instant openedAt,
            @Nullable Instant closedAt,
            @Nullable Integer ratersAnAnswer,
            @Nullable Double repeatShare) {
        static final RoundHead NONE = new RoundHead(null, null, null, null);
    }

    /** @param author key of the rater who wrote it */
    record ArchivePrompt(
            String key,
            String kind,
            PromptContent content,
            @Nullable String author,
            @Nullable String variantOf,
            @Nullable Wording wording,
            PromptView.@Nullable FaultView fault) {}

    /** @param person key of the rater whose answers they are */
    record ArchiveCandidate(
            String key, CandidateContent content, @Nullable String person) {}

    record ArchiveRubric(RubricHead head, List<ArchiveCriterion> criteria) {}

    /** @param kinds keys of the kinds it is for; none for all */
    record ArchiveCriterion(
            String key,
            String name,
            String question,
            double weight,
            @Nullable Double floor,
            List<ArchiveLevel> levels,
            List<String> kinds,
            List<String> traits) {}

    /** @param anchors text by key of the kind */
    record ArchiveLevel(String name, SortedMap<String, String> anchors) {}

    record People(List<Rater> raters, List<Expected> expectations, List<ReadBackRow> readBacks) {
        boolean leadGraded() {
            return raters.stream().anyMatch(Rater::lead);
        }
    }

    /** @param lead whether this is the lead, who graded as blind as the others */
    record Rater(String signInName, String name, boolean lead) {}

    /** @param rater key; absent for the lead */
    record Expected(@Nullable String rater, String expects, String usesToday, Instant declaredAt) {}

    record ReadBackRow(
            String prompt,
            String reader,
            Instant askedAt,
            @Nullable String answer,
            @Nullable Instant answeredAt,
            @Nullable ReadBackVerdict verdict) {}

    /**
     * @param place   from 0
     * @param repeat  whether it comes a second time
     * @param sent    whether it was sent in
     * @param sentAt  when, if the archive says so
     * @param withdrawn absent unless it was withdrawn
     */
    record ArchiveSheet(
            String rater,
            String prompt,
            int place,
            boolean repeat,
            boolean sent,
            @Nullable Instant sentAt,
            Grading.@Nullable Withdrawn withdrawn,
            List<ArchiveSheetAnswer> answers) {}

    /**
     * An answer on a sheet.
     *
     * @param marks    by criterion
     * @param coverage by key point, from 0
     */
    record ArchiveSheetAnswer(
            String answer,
            String reason,
            Map<String, Mark> marks,
            ArchiveJudgement judgement,
            Map<Integer, Verdict> coverage,
            List<RemarkContent> remarks) {}

    /**
     * @param guess    key of the candidate
     * @param noIdea   asked, and without a guess
     * @param activeMs how long it was looked at, in milliseconds
     */
    record ArchiveJudgement(
            @Nullable Works works,
            @Nullable Integer preference,
            @Nullable String guess,
            boolean noIdea,
            long activeMs) {
        static final ArchiveJudgement NONE = new ArchiveJudgement(null, null, null, false, 0);

        boolean isMade() {
            return !equals(NONE);
        }
    }
}
