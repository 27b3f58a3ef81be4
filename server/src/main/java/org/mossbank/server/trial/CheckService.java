package org.mossbank.server.trial;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Actor;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.page.Picture;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.prompt.check.PromptWarning;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.study.Studies;
import org.mossbank.server.toolchain.Toolchains;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Writing checks of prompts, and trying them before they are trusted. */
@Service
class CheckService {
    private final PromptCheckRepository checks;
    private final TrialRepository trials;
    private final Texts texts;
    private final TrialRunner runner;
    private final Toolchains toolchains;
    private final Aside aside;
    private final Writing writing;

    CheckService(
            PromptCheckRepository checks,
            TrialRepository trials,
            Texts texts,
            TrialRunner runner,
            Toolchains toolchains,
            Aside aside,
            Writing writing) {
        this.checks = checks;
        this.trials = trials;
        this.texts = texts;
        this.runner = runner;
        this.toolchains = toolchains;
        this.aside = aside;
        this.writing = writing;
    }

    /** Who writes, when it may be written, and where it is kept. */
    @Component
    record Writing(EntityManager entities, Actor actor, Studies studies, TransactionTemplate transactions) {}

    /** What trials are about. */
    @Component
    record Texts(Prompts prompts, Answers answers, Snapshot snapshot) {}

    /** What a check is tried on. */
    enum Subject {
        /** As it is before any answer: what must fail before an answer, must fail now. */
        STARTING_CODE,
        /** The lead's own: it must pass. */
        REFERENCE_ANSWER,
        ANSWER
    }

    /**
     * The check of a prompt.
     *
     * @param revision  counts up with every change
     * @param changedBy by name
     */
    record CheckOfPrompt(PromptId promptId, CheckContent content, int revision, Instant changedAt, String changedBy) {}

    /** @param revision of the check that was changed; 0 if there was none */
    record WriteCheck(@Min(0) int revision, @NotNull @Valid CheckContent content) {}

    /** @param answerId of the answer that is tried; absent for the others */
    record TryCheck(
            @NotNull Subject subject,
            @Nullable AnswerId answerId,
            @NotNull @Valid CheckContent content) {}

    /** What this server offers, and why not if it does not. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public ToolchainsView toolchains(StudyId study) {
        return ToolchainsView.of(toolchains);
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(readOnly = true)
    public List<CheckOfPrompt> ofStudy(StudyId study) {
        return checks.ofStudy(study).stream().map(PromptCheck::view).toList();
    }

    /**
     * Writes the check of a prompt. Trials by an earlier one stay, and do not count any more.
     *
     * @throws Problem 404 if the study has no such prompt; 409 once the round was opened, and if it was changed elsewhere
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public CheckOfPrompt write(StudyId study, PromptId prompt, WriteCheck request) {
        writing.studies.requirePreparing(study);
        prompt(study, prompt);
        PromptCheck check = checks.findById(prompt).orElseGet(() -> PromptCheck.of(study, prompt));
        if (check.revision() != request.revision) {
            Problem stale = new Problem(ProblemType.CHANGED_ELSEWHERE, "The check was changed in another window.");
            throw check.revision() == 0 ? stale : stale.with("current", check.view());
        }
        if (check.change(request.content, writing.actor.now(), writing.actor.name())) {
            checks.save(check);
            writing.entities.flush();
            trials.forget(prompt, check.digest());
        }
        return check.view();
    }

    /** Takes the check of a prompt away, with all trials by it. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void remove(StudyId study, PromptId prompt) {
        writing.studies.requirePreparing(study);
        prompt(study, prompt);
        checks.findById(prompt).ifPresent(c -> {
            trials.deleteAllByPromptId(prompt);
            checks.delete(c);
        });
    }

    private PromptView prompt(StudyId study, PromptId prompt) {
        return texts.prompts.one(study, prompt).orElseThrow(() -> Problem.notFound("This prompt"));
    }

    /** Of the check as it is saved, whether it can be trusted is kept. */
    private void keep(PromptView prompt, TryCheck request, boolean passed) {
        if (request.subject == Subject.ANSWER) {
            return;
        }
        writing.transactions.executeWithoutResult(status -> checks.findById(prompt.id())
                .filter(c -> c.isAs(request.content))
                .ifPresent(c -> {
                    if (request.subject == Subject.STARTING_CODE) {
                        c.triedOnStart(passed, startOf(prompt));
                    } else {
                        c.triedOnReference(passed, prompt.content().referenceAnswer());
                    }
                }));
    }

    private static String startOf(PromptView prompt) {
        return new TreeMap<>(prompt.startingCode()).toString();
    }

    /**
     * What came of trying a check.
     *
     * @param pictures PNG, in the order in which the result tells of them: they are not kept
     */
    record TriedCheck(TrialResult result, List<byte[]> pictures) {
        TriedCheck {
            pictures = List.copyOf(pictures);
        }
    }

    /** What speaks against a check: it tells nothing of an answer, or asks what a right one does not do. */
    @Component
    static class CheckOfCheck implements org.mossbank.server.prompt.check.PromptCheck {
        private final PromptCheckRepository checks;

        CheckOfCheck(PromptCheckRepository checks) {
            this.checks = checks;
        }

        @Override
        public Function<PromptView, List<PromptWarning>> of(StudyId study) {
            Map<PromptId, PromptCheck> all = checks.ofStudy(study).stream()
                    .collect(Collectors.toMap(PromptCheck::promptId, Function.identity()));
            return prompt -> Optional.ofNullable(all.get(prompt.id()))
                    .map(c -> said(c, prompt))
                    .orElse(List.of());
        }

        private static List<PromptWarning> said(PromptCheck check, PromptView prompt) {
            List<PromptWarning> warnings = new ArrayList<>();
            if (check.content().repository() == null && check.passesBefore(startOf(prompt))) {
                warnings.add(new PromptWarning(
                        "check-passes-before",
                        "The starting code passes its check already: the check tells nothing about an answer."));
            }
            if (check.refusesReference(prompt.content().referenceAnswer())) {
                warnings.add(new PromptWarning(
                        "check-refuses-reference",
                        "The reference answer does not pass its check: one of the two is not right."));
            }
            return warnings;
        }
    }

    /** What is tried, read at one moment. */
    private record Read(PromptView prompt, Optional<AnswerView> answer) {}

    /**
     * Tries a check as it stands on the screen. Nothing of it is kept but whether the saved one can be trusted.
     *
     * @throws Problem 404 if there is no such prompt or answer; 409 if nothing can be tried here
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public TriedCheck tried(StudyId study, PromptId prompt, TryCheck request) {
        toolchains.missing().ifPresent(why -> {
            throw TrialProblem.off(why);
        });
        Read read = texts.snapshot.of(() -> new Read(
                prompt(study, prompt),
                Optional.ofNullable(request.answerId)
                        .map(id -> texts.answers
                                .one(study, id)
                                .filter(a -> a.promptId().equals(prompt))
                                .orElseThrow(() -> Problem.notFound("This answer")))));
        String text = request.subject == Subject.STARTING_CODE
                ? ""
                : request.subject == Subject.REFERENCE_ANSWER
                        ? read.prompt.content().referenceAnswer()
                        : read.answer
                                .orElseThrow(() -> Problem.notFound("This answer"))
                                .wholeText();
        Map<String, String> start = read.prompt.startingCode();
        TrialRunner.Tried tried = aside.run(stop -> request.subject == Subject.STARTING_CODE
                ? runner.unanswered(request.content, start, stop)
                : runner.tried(request.content, start, text, stop));
        keep(read.prompt, request, tried.result().summary().outcome().passed());
        return new TriedCheck(
                tried.result(), tried.pictures().stream().map(Picture::png).toList());
    }
}
