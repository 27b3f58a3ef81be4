package org.mossbank.server.answer;

import jakarta.persistence.EntityManager;
import jakarta.persistence.LockModeType;
import java.util.ArrayList;
import java.util.Collection;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.candidate.CandidateUse;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.Id;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptUse;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.Progress;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.shared.database.Plans;
import org.mossbank.server.study.AnswersSeen;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.dao.ConcurrencyFailureException;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Answers, for other modules. */
@Service
@Transactional(readOnly = true)
public class Answers {
    /** Of a study. All of its answers are read at once where they are searched, masked and written to an archive. */
    public static final int MOST = 20_000;

    /** Characters, of a study. */
    public static final long MOST_TEXT = 128L << 20;

    private final AnswerRepository answers;
    private final Specimens specimens;
    private final AnswerCodes codes;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;

    Answers(
            AnswerRepository answers,
            Specimens specimens,
            AnswerCodes codes,
            EntityManager entities,
            ApplicationEventPublisher events) {
        this.answers = answers;
        this.specimens = specimens;
        this.codes = codes;
        this.entities = entities;
        this.events = events;
    }

    /** A new answer; prompt and candidate by key. */
    public record NewAnswer(
            String key,
            String prompt,
            String candidate,
            int attempt,
            Outcome outcome,
            String text,
            List<FollowUp> followUps,
            Measures measures) {
        /** All of it as one text. */
        public String wholeText() {
            return WholeText.of(text, followUps);
        }
    }

    /**
     * Adds answers and returns the new ids by key.
     *
     * @param changed how much each changes, by key
     */
    @SystemOnly
    @Transactional
    public Map<String, AnswerId> add(
            StudyId study,
            List<NewAnswer> starts,
            Map<String, PromptId> promptIds,
            Map<String, CandidateId> candidateIds,
            Map<String, ChangeSize> changed) {
        Map<String, AnswerId> ids = new LinkedHashMap<>();
        Progress.stage("writing answers", starts.size());
        Plans.anew(entities, starts.size());
        for (NewAnswer start : starts) {
            Progress.advance(1);
            Answer answer = Answer.of(
                    study,
                    Require.known(promptIds, start.prompt()),
                    Require.known(candidateIds, start.candidate()),
                    start,
                    Require.known(changed, start.key()));
            entities.persist(answer);
            ids.put(start.key(), answer.id());
        }
        return ids;
    }

    /**
     * Asked before somebody adds answers, and not where a reply has been paid for: that is kept.
     *
     * @param more       answers
     * @param characters that their texts have more than before
     * @throws Problem 400 if the study would hold more than it may
     */
    @SystemOnly
    public void requireRoom(StudyId study, int more, long characters) {
        if (answers.countByStudyId(study) + more > MOST) {
            throw new Problem(
                    ProblemType.INVALID_REQUEST,
                    "This would be more than %,d answers, the most of a study.".formatted(MOST));
        }
        if (characters > 0
                && answers.firstReplyCharacters(study) + answers.followUpCharacters(study) + characters > MOST_TEXT) {
            throw new Problem(
                    ProblemType.INVALID_REQUEST,
                    "The answers would have more than %,d characters in all, the most of a study."
                            .formatted(MOST_TEXT));
        }
    }

    /** Which attempts there are of each prompt and candidate: the number of the last. */
    @SystemOnly
    public Map<Cell, Integer> lastAttempts(StudyId study) {
        Map<Cell, Integer> last = new HashMap<>();
        for (AnswerRepository.Place answer : answers.places(study)) {
            if (answer.candidateId() != null) {
                last.merge(new Cell(answer.promptId(), answer.candidateId()), answer.attempt(), Math::max);
            }
        }
        return last;
    }

    /** What a candidate gives to a prompt. */
    public record Cell(PromptId promptId, CandidateId candidateId) {}

    /** Which prompt and candidate each answer belongs to, one entry an answer. */
    @SystemOnly
    public List<Cell> cells(StudyId study) {
        List<Cell> cells = new ArrayList<>();
        for (AnswerRepository.Place answer : answers.places(study)) {
            if (answer.candidateId() != null) {
                cells.add(new Cell(answer.promptId(), answer.candidateId()));
            }
        }
        return cells;
    }

    /** Which prompt and candidate answers belong to, without their texts. */
    @SystemOnly
    public Map<AnswerId, Cell> cells(Collection<AnswerId> ids) {
        return Chunks.of(ids, answers::whose).stream()
                .collect(Collectors.toMap(AnswerRepository.Whose::id, w -> new Cell(w.promptId(), w.candidateId())));
    }

    /** A prompt or a candidate, and its key. */
    public record Named<T extends Id<T>>(T id, String key) {}

    /**
     * What a candidate gave to a prompt.
     *
     * @param attempt which one; absent for the next
     * @param changed how much it changes in the starting code; worked out before a transaction begins
     */
    public record Attempt(
            Named<PromptId> prompt,
            Named<CandidateId> candidate,
            @Nullable Integer attempt,
            Outcome outcome,
            String text,
            List<FollowUp> followUps,
            Measures measures,
            ChangeSize changed) {}

    /**
     * Adds attempts in their order, and returns them.
     *
     * @throws IllegalArgumentException if an attempt is there already
     */
    @SystemOnly
    @Transactional
    public List<AnswerView> addAttempts(StudyId study, List<Attempt> attempts) {
        Set<String> keys = new HashSet<>();
        Map<Cell, Set<Integer>> taken = new HashMap<>();
        for (AnswerRepository.Place answer : answers.places(study)) {
            keys.add(answer.key());
            if (answer.candidateId() != null) {
                taken.computeIfAbsent(new Cell(answer.promptId(), answer.candidateId()), c -> new HashSet<>())
                        .add(answer.attempt());
            }
        }
        List<AnswerView> added = new ArrayList<>();
        for (Attempt attempt : attempts) {
            Set<Integer> before = taken.computeIfAbsent(
                    new Cell(attempt.prompt().id(), attempt.candidate().id()), c -> new HashSet<>());
            int number = attempt.attempt() != null
                    ? attempt.attempt()
                    : 1 + before.stream().mapToInt(Integer::intValue).max().orElse(0);
            if (!before.add(number)) {
                throw new IllegalArgumentException("attempt must be a new one: " + number);
            }
            String name = attempt.prompt().key() + "-" + attempt.candidate().key() + (number == 1 ? "" : "-" + number);
            String key = FreeKey.of(name, "answer", keys);
            keys.add(key);
            Answer answer = Answer.of(
                    study,
                    attempt.prompt().id(),
                    attempt.candidate().id(),
                    new NewAnswer(
                            key,
                            attempt.prompt().key(),
                            attempt.candidate().key(),
                            number,
                            attempt.outcome(),
                            attempt.text(),
                            attempt.followUps(),
                            attempt.measures()),
                    attempt.changed());
            entities.persist(answer);
            added.add(answer.view());
        }
        entities.flush();
        return added;
    }

    /** Takes one out, if it is there. Within the transaction of whoever asks, who has looked whether that may be. */
    @SystemOnly
    @Transactional
    public void remove(StudyId study, AnswerId id) {
        answers.lock(study, id).ifPresent(answers::delete);
    }

    @SystemOnly
    public Optional<AnswerView> one(StudyId study, AnswerId id) {
        return answers.ofStudyById(study, id).map(Answer::view);
    }

    @SystemOnly
    public Optional<AnswerView> one(AnswerId id) {
        return answers.findById(id).map(Answer::view);
    }

    /**
     * Adds a follow-up to an answer.
     *
     * @param outcome of the answer from now on
     * @param took    what the follow-up took; added to what the answer took before
     * @param weighed the answer with it, as {@link #weigh} found it
     * @throws ConcurrencyFailureException if the answer is another since it was weighed
     */
    @SystemOnly
    @Transactional
    public void follow(AnswerId id, FollowUp followUp, Outcome outcome, Measures took, Weighed weighed) {
        Answer answer = entities.find(Answer.class, id, LockModeType.PESSIMISTIC_WRITE);
        entities.refresh(answer);
        AnswerView before = answer.view();
        if (before.version() != weighed.version()) {
            throw new ConcurrencyFailureException("the answer was changed while its follow-up was weighed");
        }
        List<FollowUp> all = new ArrayList<>(before.followUps());
        all.add(followUp);
        answer.write(outcome, before.text(), all, before.measures().and(took), weighed.changed());
        entities.flush();
        events.publishEvent(new AnswerRewritten(answer.studyId(), id));
    }

    /**
     * How much an answer changes.
     *
     * @param version of the answer that was weighed; 0 for one that is not there yet
     */
    public record Weighed(ChangeSize changed, long version) {}

    /**
     * How much an answer would change with a follow-up; slow, so before a transaction begins.
     *
     * @param code of the prompt, text by path
     */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public Weighed weigh(Map<String, String> code, AnswerView answer, FollowUp followUp) {
        List<FollowUp> all = new ArrayList<>(answer.followUps());
        all.add(followUp);
        return new Weighed(codes.size(code, WholeText.of(answer.text(), all)), answer.version());
    }

    /** How much a first reply changes; slow, so before a transaction begins. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public Weighed weigh(Map<String, String> code, String text) {
        return new Weighed(codes.size(code, text), 0);
    }

    /** Text and outcome by id, specimens among them, as they are: raters get them masked. */
    @SystemOnly
    public Map<AnswerId, AnswerText> blind(Collection<AnswerId> ids) {
        return Stream.concat(answers.findAllById(ids).stream().map(Answer::blind), specimens.blind(ids).stream())
                .collect(Collectors.toMap(AnswerText::id, Function.identity()));
    }

    @SystemOnly
    public List<AnswerView> ofStudy(StudyId study) {
        return answers.ofStudy(study).stream().map(Answer::view).toList();
    }

    /** Keeps prompts and candidates from being pulled from under their answers; what is there has been seen. */
    @Component
    static class AnswersThere implements PromptUse, CandidateUse, AnswersSeen {
        private final AnswerRepository answers;

        AnswersThere(AnswerRepository answers) {
            this.answers = answers;
        }

        @Override
        public boolean isAnythingSeen(StudyId study) {
            return answers.existsByStudyId(study);
        }

        @Override
        public boolean isPromptAnswered(StudyId study, PromptId prompt) {
            return answers.existsByStudyIdAndPromptId(study, prompt);
        }

        @Override
        public boolean isCandidateAnswering(StudyId study, CandidateId candidate) {
            return answers.existsByStudyIdAndCandidateId(study, candidate);
        }
    }
}
