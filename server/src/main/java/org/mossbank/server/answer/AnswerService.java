package org.mossbank.server.answer;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.ChangeSize;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.RoundStage;
import org.mossbank.server.study.Studies;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Changing an answer by hand, and removing it. */
@Service
@Transactional(readOnly = true)
class AnswerService {
    /** Characters. */
    static final int LONGEST_TEXT = FollowUp.LONGEST_REPLY;

    private final AnswerRepository answers;
    private final Answers all;
    private final Prompts prompts;
    private final AnswerCodes codes;
    private final EntityManager entities;
    private final TransactionTemplate transactions;
    private final ApplicationEventPublisher events;
    private final AnswerAdmission admission;

    AnswerService(
            AnswerRepository answers,
            Answers all,
            Prompts prompts,
            AnswerCodes codes,
            EntityManager entities,
            TransactionTemplate transactions,
            ApplicationEventPublisher events,
            AnswerAdmission admission) {
        this.admission = admission;
        this.answers = answers;
        this.all = all;
        this.prompts = prompts;
        this.codes = codes;
        this.entities = entities;
        this.transactions = transactions;
        this.events = events;
    }

    private Map<String, String> startingCode(StudyId study, PromptId prompt) {
        return prompts.one(study, prompt).orElseThrow().startingCode();
    }

    record WriteAnswer(
            @Min(0) long version,
            @NotNull Outcome outcome,
            @NotNull @Size(max = LONGEST_TEXT) String text,
            @NotNull @Size(max = FollowUp.MOST) List<@Valid @NotNull FollowUp> followUps,
            @NotNull @Valid Measures measures) {}

    /** @throws Problem 409 if it was changed in the meantime, or the round was opened */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public AnswerView write(StudyId study, AnswerId id, WriteAnswer request) {
        AnswerAdmission.requireText(request.outcome(), request.text());
        PromptId prompt =
                answers.ofStudyById(study, id).map(Answer::promptId).orElseThrow(() -> Problem.notFound("This answer"));
        ChangeSize changed = codes.size(startingCode(study, prompt), WholeText.of(request.text(), request.followUps()));
        return Objects.requireNonNull(transactions.execute(status -> write(study, id, request, changed)));
    }

    private AnswerView write(StudyId study, AnswerId id, WriteAnswer request, ChangeSize changed) {
        admission.requirePreparing(study);
        Answer answer = answers.lock(study, id).orElseThrow(() -> Problem.notFound("This answer"));
        entities.refresh(answer);
        prompts.refuseIfCalibrating(answer.promptId());
        if (answer.version() != request.version()) {
            throw new Problem(
                            ProblemType.CHANGED_ELSEWHERE, "The answer was changed in another window since you saw it.")
                    .with("current", answer.view());
        }
        admission.require(study, request.followUps().size());
        String before = answer.view().wholeText();
        all.requireRoom(
                study, 0, WholeText.of(request.text(), request.followUps()).length() - before.length());
        answer.write(request.outcome(), request.text(), request.followUps(), request.measures(), changed);
        entities.flush();
        if (!before.equals(answer.view().wholeText())) {
            events.publishEvent(new AnswerRewritten(study, id));
        }
        return answer.view();
    }

    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void remove(StudyId study, AnswerId id) {
        admission.requirePreparing(study);
        Answer answer = answers.lock(study, id).orElseThrow(() -> Problem.notFound("This answer"));
        prompts.refuseIfCalibrating(answer.promptId());
        answers.delete(answer);
    }

    /** Says how many cells of prompts × candidates have an answer. */
    @Component
    static class AnswerStep implements StepReport {
        private final Answers answers;
        private final AnswerRepository counts;
        private final Prompts prompts;
        private final Candidates candidates;
        private final List<AnswersToSettle> others;
        private final Studies studies;

        AnswerStep(
                Answers answers,
                AnswerRepository counts,
                Prompts prompts,
                Candidates candidates,
                List<AnswersToSettle> others,
                Studies studies) {
            this.studies = studies;
            this.answers = answers;
            this.counts = counts;
            this.prompts = prompts;
            this.candidates = candidates;
            this.others = others;
        }

        @Override
        public Step step() {
            return Step.ANSWERS;
        }

        @Override
        public StepState stateOf(StudyId study) {
            Set<PromptId> sound = Set.copyOf(prompts.soundIds(study));
            List<AnswerRepository.OfPrompt> all = counts.byPrompt(study);
            long filled = all.stream()
                    .filter(p -> sound.contains(p.promptId()))
                    .mapToLong(AnswerRepository.OfPrompt::candidates)
                    .sum();
            int cells = sound.size() * candidates.count(study);
            long total =
                    all.stream().mapToLong(AnswerRepository.OfPrompt::answers).sum();
            String line = total + (total == 1 ? " answer" : " answers");
            long gaps = cells - filled;
            double done = cells == 0 ? 0 : (double) filled / cells;
            String missing = gaps == 0
                    ? total == 0 ? "no answer yet" : openStill(study)
                    : gaps == 1 ? "one is missing" : gaps + " are missing";
            return new StepState(Step.ANSWERS, done, line, missing);
        }

        /** Once raters grade nothing can be settled any more, and all answers are not read to say so. */
        private @Nullable String openStill(StudyId study) {
            return studies.stage(study) == RoundStage.Stage.PREPARING
                    ? toSettle(study).findFirst().orElse(null)
                    : null;
        }

        private Stream<String> toSettle(StudyId study) {
            return others.stream().flatMap(o -> o.toSettle(study).stream());
        }

        /** A missing answer is told with the plan and may be meant; a prompt that nobody answered cannot be graded. */
        @Override
        public List<String> missingBeforeRound(StudyId study) {
            List<Prompts.Outline> sound = prompts.outlines(study).stream()
                    .filter(Prompts.Outline::isCounting)
                    .toList();
            Set<PromptId> asked = sound.stream().map(Prompts.Outline::id).collect(Collectors.toSet());
            List<Answers.Cell> filled = answers.cells(study).stream()
                    .filter(c -> asked.contains(c.promptId()))
                    .toList();
            Set<PromptId> answered = filled.stream().map(Answers.Cell::promptId).collect(Collectors.toSet());
            Set<CandidateId> answering =
                    filled.stream().map(Answers.Cell::candidateId).collect(Collectors.toSet());
            List<String> missing = new ArrayList<>();
            for (Prompts.Outline prompt : sound) {
                if (!answered.contains(prompt.id())) {
                    missing.add("Answers: nobody answered “" + prompt.title() + "”.");
                }
            }
            for (CandidateView candidate : candidates.ofStudy(study)) {
                if (!answering.contains(candidate.id())) {
                    missing.add("Answers: " + candidate.name() + " has none.");
                }
            }
            toSettle(study).forEach(open -> missing.add("Answers: " + open + "."));
            return missing;
        }
    }
}
