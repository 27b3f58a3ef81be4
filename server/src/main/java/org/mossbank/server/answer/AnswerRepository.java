package org.mossbank.server.answer;

import jakarta.persistence.LockModeType;
import java.math.BigDecimal;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface AnswerRepository extends JpaRepository<Answer, AnswerId> {
    @Query("select a from Answer a where a.studyId = :study order by a.key")
    List<Answer> ofStudy(StudyId study);

    @Query("select a from Answer a where a.studyId = :study and a.promptId = :prompt order by a.key")
    List<Answer> ofPrompt(StudyId study, PromptId prompt);

    /**
     * Where an answer stands; without its text, which may be long.
     *
     * @param candidateId absent for a specimen
     */
    record Place(String key, PromptId promptId, @Nullable CandidateId candidateId, int attempt) {}

    @Query("select new org.mossbank.server.answer.AnswerRepository$Place(a.key, a.promptId, a.candidateId, a.attempt)"
            + " from AnswerPlace a where a.studyId = :study")
    List<Place> places(StudyId study);

    /** Of a prompt's answers, how many there are, and of how many candidates. */
    record OfPrompt(PromptId promptId, long candidates, long answers) {}

    @Query("select new org.mossbank.server.answer.AnswerRepository$OfPrompt(a.promptId, count(distinct a.candidateId),"
            + " count(a)) from Answer a where a.studyId = :study group by a.promptId")
    List<OfPrompt> byPrompt(StudyId study);

    /** Whose an answer is, and to which prompt. */
    record Whose(AnswerId id, PromptId promptId, CandidateId candidateId) {}

    @Query("select new org.mossbank.server.answer.AnswerRepository$Whose(a.id, a.promptId, a.candidateId)"
            + " from Answer a where a.id in :ids")
    List<Whose> whose(List<AnswerId> ids);

    /** Which version of an answer there is, without its text. */
    @Query("select new org.mossbank.server.answer.FactsOfAnswers$Head(a.id, a.promptId, a.version)"
            + " from Answer a where a.studyId = :study order by a.key")
    List<FactsOfAnswers.Head> heads(StudyId study);

    /** With their first replies alone. */
    @Query("select new org.mossbank.server.answer.FactsOfAnswers$Whole(a.id, a.key, a.promptId, a.candidateId,"
            + " a.attempt, a.version, a.text) from Answer a where a.studyId = :study order by a.key")
    List<FactsOfAnswers.Whole> firstReplies(StudyId study);

    @Query("select new org.mossbank.server.answer.FactsOfAnswers$Whole(a.id, a.key, a.promptId, a.candidateId,"
            + " a.attempt, a.version, a.text) from Answer a where a.studyId = :study and a.id in :ids order by a.key")
    List<FactsOfAnswers.Whole> firstReplies(StudyId study, Set<AnswerId> ids);

    /** What was asked of an answer after its first reply, and what came. */
    record Turn(AnswerId answer, String asked, String reply) {}

    @Query("select new org.mossbank.server.answer.AnswerRepository$Turn(a.id, f.asked, f.reply)"
            + " from Answer a join a.followUps f where a.studyId = :study order by a.id, index(f)")
    List<Turn> turns(StudyId study);

    /** An answer in a grid: no text is read for it. */
    record InGrid(
            AnswerId id,
            String key,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            Outcome outcome,
            @Nullable Long firstOutputMs,
            @Nullable Long totalMs,
            @Nullable Long inputTokens,
            @Nullable Long outputTokens,
            @Nullable BigDecimal cost,
            @Nullable String currency,
            boolean estimated,
            @Nullable Integer tries,
            @Nullable String model,
            int filesChanged,
            int linesAdded,
            int linesRemoved,
            boolean changesComplete) {
        Measures measures() {
            return Measures.of(
                    firstOutputMs, totalMs, inputTokens, outputTokens, cost, currency, estimated, tries, model);
        }
    }

    @Query("select new org.mossbank.server.answer.AnswerRepository$InGrid(a.id, a.key, a.promptId, a.candidateId,"
            + " a.attempt, a.outcome, a.firstOutputMs, a.totalMs, a.inputTokens, a.outputTokens, a.cost, a.currency,"
            + " a.estimated, a.tries, a.model, a.filesChanged, a.linesAdded, a.linesRemoved, a.changesComplete)"
            + " from Answer a where a.studyId = :study order by a.key")
    List<InGrid> inGrid(StudyId study);

    /** The beginning of a text tells nearly always whether there is anything to be read in it. */
    int BEGINNING = 64;

    /**
     * An answer without its text.
     *
     * @param length    of the first reply
     * @param beginning of the first reply
     * @param turns     characters of all follow-ups
     */
    record Lean(
            AnswerId id,
            String key,
            PromptId promptId,
            CandidateId candidateId,
            int attempt,
            Outcome outcome,
            @Nullable Long firstOutputMs,
            @Nullable Long totalMs,
            @Nullable Long inputTokens,
            @Nullable Long outputTokens,
            @Nullable BigDecimal cost,
            @Nullable String currency,
            boolean estimated,
            @Nullable Integer tries,
            @Nullable String model,
            int length,
            String beginning,
            long turns) {
        boolean isPerhapsBlank() {
            return turns == 0 && beginning.isBlank();
        }

        AnswerFacts facts(List<String> asked, boolean withoutText) {
            return new AnswerFacts(
                    id,
                    key,
                    promptId,
                    candidateId,
                    attempt,
                    outcome,
                    Measures.of(
                            firstOutputMs, totalMs, inputTokens, outputTokens, cost, currency, estimated, tries, model),
                    asked,
                    length + turns,
                    withoutText);
        }
    }

    @Query("select new org.mossbank.server.answer.AnswerRepository$Lean(a.id, a.key, a.promptId, a.candidateId,"
            + " a.attempt, a.outcome, a.firstOutputMs, a.totalMs, a.inputTokens, a.outputTokens, a.cost, a.currency,"
            + " a.estimated, a.tries, a.model, length(a.text), substring(a.text, 1, " + BEGINNING + "),"
            + " coalesce((select sum(length(f.asked) + length(f.reply)) from a.followUps f), 0))"
            + " from Answer a where a.studyId = :study order by a.key")
    List<Lean> lean(StudyId study);

    @Query("select distinct a.model from Answer a where a.studyId = :study and a.candidateId = :candidate"
            + " and a.model is not null")
    Set<String> models(StudyId study, CandidateId candidate);

    /** What was asked of an answer after its first reply. */
    record Asked(AnswerId answer, String asked) {}

    @Query("select new org.mossbank.server.answer.AnswerRepository$Asked(a.id, f.asked)"
            + " from Answer a join a.followUps f where a.studyId = :study order by a.id, index(f)")
    List<Asked> asked(StudyId study);

    long countByStudyId(StudyId study);

    @Query("select coalesce(sum(length(a.text)), 0) from Answer a where a.studyId = :study")
    long firstReplyCharacters(StudyId study);

    @Query("select coalesce(sum(length(f.asked) + length(f.reply)), 0) from Answer a join a.followUps f"
            + " where a.studyId = :study")
    long followUpCharacters(StudyId study);

    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select a from Answer a where a.id = :answer and a.studyId = :study")
    Optional<Answer> lock(StudyId study, AnswerId answer);

    @Query("select a from Answer a where a.id = :answer and a.studyId = :study")
    Optional<Answer> ofStudyById(StudyId study, AnswerId answer);

    boolean existsByStudyId(StudyId studyId);

    boolean existsByStudyIdAndPromptId(StudyId study, PromptId prompt);

    boolean existsByStudyIdAndCandidateId(StudyId study, CandidateId candidate);
}
