package org.mossbank.server.grading.rows;

import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Guess;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.CriterionId;

/**
 * A sheet by keys, as the open format has it.
 *
 * @param place     from 0
 * @param repeat    whether it comes a second time
 * @param rubricVersion absent for the one in use
 * @param sent      whether it was sent in
 * @param sentAt    when, if the file says so
 * @param withdrawn absent unless it was withdrawn
 */
public record KeyedSheet(
        String rater,
        String prompt,
        int place,
        boolean repeat,
        @Nullable Integer rubricVersion,
        boolean sent,
        @Nullable Instant sentAt,
        Grading.@Nullable Withdrawn withdrawn,
        List<KeyedAnswer> answers) {
    public static KeyedSheet of(Grading.SheetRecord sheet, Keys keys) {
        return new KeyedSheet(
                keys.of(sheet.raterId()),
                keys.of(sheet.promptId()),
                sheet.place(),
                sheet.repeat(),
                sheet.rubricVersion(),
                sheet.sentAt() != null,
                sheet.sentAt(),
                sheet.withdrawn(),
                sheet.answers().stream().map(a -> KeyedAnswer.of(a, keys)).toList());
    }

    /**
     * As it is kept.
     *
     * @param now when it counts as sent if the file does not say when
     */
    public Grading.SheetRecord kept(NewIds ids, Instant now) {
        List<Grading.AnswerRecord> kept = new ArrayList<>();
        Map<String, CriterionId> criteria = ids.criteriaOf(rubricVersion);
        answers.forEach(a -> kept.add(a.kept(kept.size(), ids, criteria)));
        return new Grading.SheetRecord(
                Require.known(ids.people(), rater),
                Require.known(ids.prompts(), prompt),
                place,
                repeat,
                rubricVersion,
                sentAt == null && sent ? now : sentAt,
                withdrawn,
                kept);
    }

    /**
     * An answer on a sheet.
     *
     * @param marks    by criterion
     * @param coverage by key point, from 0
     */
    public record KeyedAnswer(
            String answer,
            String reason,
            Map<String, Mark> marks,
            KeyedJudgement judgement,
            Map<Integer, Verdict> coverage,
            List<RemarkContent> remarks) {
        private static KeyedAnswer of(Grading.AnswerRecord answer, Keys keys) {
            Map<String, Mark> marks = new TreeMap<>();
            answer.marks().forEach((criterion, mark) -> marks.put(keys.of(criterion), mark));
            return new KeyedAnswer(
                    keys.of(answer.answerId()),
                    answer.reason(),
                    marks,
                    KeyedJudgement.of(answer.judgement(), keys),
                    answer.coverage(),
                    answer.remarks());
        }

        private Grading.AnswerRecord kept(int place, NewIds ids, Map<String, CriterionId> criteria) {
            Map<CriterionId, Mark> kept = new HashMap<>();
            marks.forEach((criterion, mark) -> kept.put(Require.known(criteria, criterion), mark));
            return new Grading.AnswerRecord(
                    Require.known(ids.answers(), answer), place, reason, kept, judgement.kept(ids), coverage, remarks);
        }
    }

    /**
     * What a rater says of an answer as a whole.
     *
     * @param worksWhy why they say otherwise than trials do
     * @param guess    key of the candidate
     * @param noIdea   asked, and without a guess
     * @param activeMs how long it was looked at, in milliseconds
     */
    public record KeyedJudgement(
            @Nullable Works works,
            String worksWhy,
            @Nullable Integer preference,
            @Nullable String guess,
            boolean noIdea,
            long activeMs) {
        static final KeyedJudgement NONE = new KeyedJudgement(null, "", null, null, false, 0);

        private static KeyedJudgement of(Grading.Judgement judgement, Keys keys) {
            Guess guess = judgement.guess();
            CandidateId guessed = guess == null ? null : guess.candidateId();
            return new KeyedJudgement(
                    judgement.works(),
                    judgement.worksWhy(),
                    judgement.preference(),
                    keys.orNone(guessed),
                    guess != null && guessed == null,
                    judgement.activeMs());
        }

        private Grading.Judgement kept(NewIds ids) {
            Guess kept = guess != null ? new Guess(ids.candidates().get(guess)) : noIdea ? new Guess(null) : null;
            return new Grading.Judgement(works, worksWhy, preference, kept, activeMs);
        }

        boolean isMade() {
            return !equals(NONE);
        }
    }
}
