package org.mossbank.server.trial;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.markdown.FencedBlock;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.Studies;
import org.mossbank.server.toolchain.Toolchains;
import org.mossbank.server.trial.picture.PagePictures;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Beginning trials, stopping them, and looking at how far they are. */
@Service
class TrialService {
    static final int MOST_REPETITIONS = 10;

    /** Of a study: all of them stand on one board. */
    private static final int MOST = 20_000;

    private final TrialRepository trials;
    private final PromptCheckRepository checks;
    private final Answers answers;
    private final Studies studies;
    private final Toolchains toolchains;
    private final EntityManager entities;
    private final Reading reading;

    TrialService(
            TrialRepository trials,
            PromptCheckRepository checks,
            Answers answers,
            Studies studies,
            Toolchains toolchains,
            EntityManager entities,
            Reading reading) {
        this.trials = trials;
        this.checks = checks;
        this.answers = answers;
        this.studies = studies;
        this.toolchains = toolchains;
        this.entities = entities;
        this.reading = reading;
    }

    /** How the database is held: never while it is looked at whether anything can be tried, or while texts are hashed. */
    @Component
    record Reading(Snapshot snapshot, TransactionTemplate transactions, CodeForTrial code, PagePictures pictures) {}

    /**
     * Which answers are tried, and how often.
     *
     * @param promptIds   those whose answers are tried; all that have a check if none is named
     * @param repetitions of each; those that there are count
     */
    record StartTrials(
            @NotNull @Size(max = 1_000) List<@NotNull PromptId> promptIds,
            @Min(1) @Max(MOST_REPETITIONS) int repetitions) {
        StartTrials {
            promptIds = List.copyOf(promptIds);
        }
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public TrialBoard board(StudyId study) {
        toolchains.lookAhead();
        Optional<String> missing = toolchains.missing();
        return reading.snapshot.of(() -> boardOf(study, missing));
    }

    /** How many trials are how far. */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public TrialBoard.TrialsSoFar soFar(StudyId study) {
        return TrialBoard.TrialsSoFar.of(trials.counts(study));
    }

    private TrialBoard boardOf(StudyId study, Optional<String> missing) {
        Map<PromptId, String> current = checks.digests(study).stream()
                .collect(
                        Collectors.toMap(PromptCheckRepository.Digest::promptId, PromptCheckRepository.Digest::digest));
        return new TrialBoard(
                missing.orElse(null),
                trials.outlines(study).stream()
                        .map(t -> TrialBoard.TrialOfBoard.of(t, t.checkDigest().equals(current.get(t.promptId()))))
                        .toList());
    }

    /** @throws Problem 404 if the study has no such trial, or it has not ended */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(readOnly = true)
    public TrialResult one(StudyId study, UUID trial) {
        return trials.ofStudyById(study, trial).map(Trial::result).orElseThrow(() -> Problem.notFound("This trial"));
    }

    /**
     * A picture of an answer's page.
     *
     * @param place in the order in which the trial tells of them
     * @return PNG
     * @throws Problem 404 if there is none
     */
    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    @Transactional(readOnly = true)
    public byte[] picture(StudyId study, UUID trial, int place) {
        return trials.ofStudyById(study, trial)
                .flatMap(t -> reading.pictures.ofTrial(t.id(), place))
                .orElseThrow(() -> Problem.notFound("This picture"));
    }

    /**
     * Begins what is missing of the trials wanted: each turn of each answer, candidates taking turns. What there is already is left,
     * as a trial that was repeated until it passed would be none.
     *
     * @throws Problem 409 if no prompt has a check, nothing can be tried here, or the round was opened; 400 if a repository cannot
     *     be read
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public TrialBoard start(StudyId study, StartTrials request) {
        Optional<String> missing = toolchains.missing();
        missing.ifPresent(why -> {
            throw TrialProblem.off(why);
        });
        Read read = reading.snapshot.of(() -> read(study, request.promptIds));
        if (read.byPrompt.isEmpty()) {
            throw TrialProblem.noCheck();
        }
        read.byPrompt.values().stream().map(PromptCheck::content).distinct().forEach(reading.code::requireHere);
        List<Trial> fresh = fresh(study, read, request.repetitions);
        // What was known has been joined by what is new.
        if (read.known.size() > MOST) {
            throw new Problem(ProblemType.TOO_LARGE, "A study has at most %,d trials.".formatted(MOST));
        }
        return Objects.requireNonNull(reading.transactions.execute(status -> {
            studies.requirePreparing(study);
            fresh.forEach(entities::persist);
            entities.flush();
            return boardOf(study, missing);
        }));
    }

    /** What trials are begun of, read at one moment. */
    private record Read(
            Map<PromptId, PromptCheck> byPrompt, List<AnswerView> answers, Set<Trial.Subject> known, long place) {}

    private Read read(StudyId study, List<PromptId> prompts) {
        Map<PromptId, PromptCheck> byPrompt = checks.ofStudy(study).stream()
                .filter(c -> prompts.isEmpty() || prompts.contains(c.promptId()))
                .collect(Collectors.toMap(PromptCheck::promptId, Function.identity()));
        Set<Trial.Subject> known = new HashSet<>();
        trials.outlines(study)
                .forEach(t -> known.add(
                        new Trial.Subject(t.promptId(), t.answerId(), t.turn(), t.repetition(), t.checkDigest())));
        return new Read(byPrompt, answers.ofStudy(study), known, trials.lastPlace());
    }

    /** Those that are missing. An answer that is written anew at this moment is found out when its trial is given out. */
    private static List<Trial> fresh(StudyId study, Read read, int repetitions) {
        List<Trial> fresh = new ArrayList<>();
        for (Wanted wanted : wanted(read, repetitions)) {
            if (read.known.add(wanted.subject)) {
                String digest = Trial.digest(wanted.answer, wanted.subject.turn());
                fresh.add(Trial.of(study, wanted.subject, digest, read.place + fresh.size() + 1));
            }
        }
        return fresh;
    }

    private record Wanted(Trial.Subject subject, AnswerView answer) {}

    /** By repetition, then prompt, then attempt and turn: candidates follow each other, so that a slow hour is everybody's. */
    private static List<Wanted> wanted(Read read, int repetitions) {
        List<AnswerView> tried = read.answers.stream()
                .filter(a -> read.byPrompt.containsKey(a.promptId()) && !a.isWithoutText())
                .sorted(Comparator.comparing((AnswerView a) -> a.promptId().toString())
                        .thenComparing(AnswerView::attempt)
                        .thenComparing(a -> a.candidateId().toString()))
                .toList();
        Map<PromptId, CheckContent.WithoutCode> rules = new HashMap<>();
        read.byPrompt.forEach(
                (prompt, check) -> rules.put(prompt, check.content().withoutCode()));
        List<Wanted> all = new ArrayList<>();
        for (int repetition = 1; repetition <= repetitions; repetition++) {
            for (AnswerView answer : tried) {
                PromptCheck check = read.byPrompt.get(answer.promptId());
                CheckContent.WithoutCode withoutCode = Require.known(rules, answer.promptId());
                for (int turn = 0; check != null && turn <= answer.followUps().size(); turn++) {
                    if (withoutCode == CheckContent.WithoutCode.LEFT_OUT
                            && !FencedBlock.isCodeIn(answer.textUpTo(turn))) {
                        continue;
                    }
                    all.add(new Wanted(
                            new Trial.Subject(answer.promptId(), answer.id(), turn, repetition, check.digest()),
                            answer));
                }
            }
        }
        return all;
    }

    /** Stops what waits and what runs; what has ended stays. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public TrialBoard stop(StudyId study) {
        Optional<String> missing = toolchains.missing();
        return Objects.requireNonNull(reading.transactions.execute(status -> {
            trials.stop(study);
            return boardOf(study, missing);
        }));
    }

    /** Goes on with what was stopped. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public TrialBoard goOn(StudyId study) {
        Optional<String> missing = toolchains.missing();
        return Objects.requireNonNull(reading.transactions.execute(status -> {
            studies.requirePreparing(study);
            trials.goOn(study);
            return boardOf(study, missing);
        }));
    }
}
