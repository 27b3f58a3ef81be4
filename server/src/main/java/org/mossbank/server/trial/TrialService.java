package org.mossbank.server.trial;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.mossbank.server.toolchain.Toolchains;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Beginning trials, stopping them, and looking at how far they are. */
@Service
class TrialService {
    static final int MOST_REPETITIONS = 10;

    private final TrialRepository trials;
    private final PromptCheckRepository checks;
    private final Answers answers;
    private final Studies studies;
    private final Toolchains toolchains;
    private final EntityManager entities;

    TrialService(
            TrialRepository trials,
            PromptCheckRepository checks,
            Answers answers,
            Studies studies,
            Toolchains toolchains,
            EntityManager entities) {
        this.trials = trials;
        this.checks = checks;
        this.answers = answers;
        this.studies = studies;
        this.toolchains = toolchains;
        this.entities = entities;
    }

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
    @Transactional(readOnly = true)
    public TrialBoard board(StudyId study) {
        return boardOf(study);
    }

    private TrialBoard boardOf(StudyId study) {
        Map<PromptId, String> current =
                checks.ofStudy(study).stream().collect(Collectors.toMap(PromptCheck::promptId, PromptCheck::digest));
        return new TrialBoard(
                toolchains.missing().orElse(null),
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
     * Begins what is missing of the trials wanted: each turn of each answer, candidates taking turns. What there is already is left,
     * as a trial that was repeated until it passed would be none.
     *
     * @throws Problem 409 if no prompt has a check, nothing can be tried here, or the round was opened
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public TrialBoard start(StudyId study, StartTrials request) {
        studies.requirePreparing(study);
        toolchains.missing().ifPresent(why -> {
            throw TrialProblem.off(why);
        });
        Map<PromptId, PromptCheck> byPrompt = checks.ofStudy(study).stream()
                .filter(c -> request.promptIds.isEmpty() || request.promptIds.contains(c.promptId()))
                .collect(Collectors.toMap(PromptCheck::promptId, Function.identity()));
        if (byPrompt.isEmpty()) {
            throw TrialProblem.noCheck();
        }
        Set<Trial.Subject> known = new HashSet<>();
        trials.outlines(study)
                .forEach(t -> known.add(
                        new Trial.Subject(t.promptId(), t.answerId(), t.turn(), t.repetition(), t.checkDigest())));
        long place = trials.lastPlace();
        for (Wanted wanted : wanted(study, byPrompt, request.repetitions)) {
            if (known.add(wanted.subject)) {
                place++;
                String digest = Trial.digest(wanted.answer, wanted.subject.turn());
                entities.persist(Trial.of(study, wanted.subject, digest, place));
            }
        }
        entities.flush();
        return boardOf(study);
    }

    private record Wanted(Trial.Subject subject, AnswerView answer) {}

    /** By repetition, then prompt, then attempt and turn: candidates follow each other, so that a slow hour is everybody's. */
    private List<Wanted> wanted(StudyId study, Map<PromptId, PromptCheck> byPrompt, int repetitions) {
        List<AnswerView> tried = answers.ofStudy(study).stream()
                .filter(a -> byPrompt.containsKey(a.promptId()) && !a.isWithoutText())
                .sorted(Comparator.comparing((AnswerView a) -> a.promptId().toString())
                        .thenComparing(AnswerView::attempt)
                        .thenComparing(a -> a.candidateId().toString()))
                .toList();
        List<Wanted> all = new ArrayList<>();
        for (int repetition = 1; repetition <= repetitions; repetition++) {
            for (AnswerView answer : tried) {
                PromptCheck check = byPrompt.get(answer.promptId());
                for (int turn = 0; check != null && turn <= answer.followUps().size(); turn++) {
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
    @Transactional
    public TrialBoard stop(StudyId study) {
        trials.stop(study);
        return boardOf(study);
    }

    /** Goes on with what was stopped. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public TrialBoard goOn(StudyId study) {
        studies.requirePreparing(study);
        trials.goOn(study);
        return boardOf(study);
    }
}
