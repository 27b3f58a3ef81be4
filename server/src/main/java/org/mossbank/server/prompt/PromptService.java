package org.mossbank.server.prompt;

import jakarta.persistence.EntityManager;
import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.CurrentAccount;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.shared.FreeKey;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.Studies;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Writing prompts. */
@Service
@Transactional(readOnly = true)
class PromptService {
    private final Prompts prompts;
    private final PromptRepository repository;
    private final PromptFaultRepository faults;
    private final Studies studies;
    private final CurrentAccount current;
    private final PromptUse use;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;

    PromptService(
            Prompts prompts,
            PromptRepository repository,
            PromptFaultRepository faults,
            Studies studies,
            CurrentAccount current,
            PromptUse use,
            EntityManager entities,
            ApplicationEventPublisher events) {
        this.prompts = prompts;
        this.repository = repository;
        this.faults = faults;
        this.studies = studies;
        this.current = current;
        this.use = use;
        this.entities = entities;
        this.events = events;
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study)")
    public List<PromptView> ofStudy(StudyId study) {
        return prompts.ofStudy(study);
    }

    /** A prompt's title, for whoever may know that it is there but not what is answered. */
    record PromptTitle(PromptId id, String title, KindView kind, boolean faulty) {}

    @PreAuthorize("@studyAccess.mayLead(#study) or @studyAccess.maySeeAll(#study)")
    public List<PromptTitle> titles(StudyId study) {
        return prompts.ofStudy(study).stream()
                .map(p -> new PromptTitle(p.id(), p.title(), p.kind(), p.isFaulty()))
                .toList();
    }

    private Set<String> keys(StudyId study) {
        return prompts.ofStudy(study).stream().map(PromptView::key).collect(Collectors.toSet());
    }

    record AddPrompt(@NotNull KindId kindId, @NotNull @Valid PromptContent content) {}

    /** Adds a prompt by whoever asks. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public PromptView add(StudyId study, AddPrompt request) {
        return added(study, request.kindId(), request.content(), null);
    }

    @SystemOnly
    PromptView added(StudyId study, KindId kindId, PromptContent content, PromptView.@Nullable BankRef bank) {
        studies.requirePreparing(study);
        requireKind(study, kindId);
        List<Prompt> known = repository.ofStudy(study);
        int place = known.isEmpty() ? 0 : known.get(known.size() - 1).place() + 1;
        Prompt prompt = Prompt.of(study, FreeKey.of(content.title(), "prompt", keys(study)), kindId, content, place);
        prompt.writtenBy(current.id());
        if (bank != null) {
            prompt.keepAs(bank);
        }
        entities.persist(prompt);
        entities.flush();
        return one(study, prompt);
    }

    private void requireKind(StudyId study, KindId kindId) {
        if (prompts.kinds(study).stream().noneMatch(k -> k.id().equals(kindId))) {
            throw Problem.invalid("kindId", "must be a kind of this study");
        }
    }

    @SystemOnly
    PromptView one(StudyId study, Prompt prompt) {
        return prompts.views(study, List.of(prompt)).get(0);
    }

    /**
     * @param authorId whose prompt it is; they will not grade answers to it
     * @param wording  how it is worded
     */
    record WritePrompt(
            @Min(0) long version,
            @NotNull KindId kindId,
            @Nullable AccountId authorId,
            @Nullable Wording wording,
            @NotNull @Valid PromptContent content) {}

    /** @throws Problem 409 if it was changed in the meantime, or the round was opened */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public PromptView write(StudyId study, PromptId id, WritePrompt request) {
        studies.requirePreparing(study);
        prompts.refuseIfCalibrating(id);
        Prompt prompt = locked(study, id);
        if (prompt.version() != request.version()) {
            throw new Problem(
                            ProblemType.CHANGED_ELSEWHERE, "The prompt was changed in another window since you saw it.")
                    .with("current", one(study, prompt));
        }
        requireKind(study, request.kindId());
        if (request.authorId() != null && !studies.members(study).containsKey(request.authorId())) {
            throw Problem.invalid("authorId", "must belong to the study");
        }
        if (prompt.variantOf().isPresent() && request.wording() == null) {
            throw Problem.invalid("wording", "must say how a variant is worded");
        }
        if (!use.isPromptAnswered(study, id)) {
            Set<String> others = new HashSet<>(keys(study));
            others.remove(prompt.key());
            prompt.call(FreeKey.following(
                    prompt.key(), prompt.content().title(), request.content().title(), "prompt", others));
        }
        prompt.write(request.kindId(), request.content());
        prompt.writtenBy(request.authorId());
        prompt.word(request.wording());
        entities.flush();
        return one(study, prompt);
    }

    @SystemOnly
    Prompt locked(StudyId study, PromptId id) {
        Prompt prompt = repository.lock(study, id).orElseThrow(() -> Problem.notFound("This prompt"));
        entities.refresh(prompt);
        return prompt;
    }

    record AddVariant(@NotNull Wording wording) {}

    /** Adds another wording of a prompt: a copy, to be reworded. A variant of a variant belongs to the same first one. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public PromptView addVariant(StudyId study, PromptId id, AddVariant request) {
        Prompt base = locked(study, id);
        PromptView copy = added(study, base.kindId(), base.content(), null);
        Prompt variant = locked(study, copy.id());
        variant.makeVariant(base.variantOf().orElse(base.id()), request.wording());
        entities.flush();
        return one(study, variant);
    }

    /** @throws Problem 409 if there are answers to it, or other wordings of it */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public void remove(StudyId study, PromptId id) {
        studies.requirePreparing(study);
        prompts.refuseIfCalibrating(id);
        Prompt prompt = locked(study, id);
        if (use.isPromptAnswered(study, id)) {
            throw new Problem(ProblemType.HAS_ANSWERS, "There are answers to this prompt. Remove them first.");
        }
        if (repository.ofStudy(study).stream()
                .anyMatch(p -> p.variantOf().filter(id::equals).isPresent())) {
            throw new Problem(ProblemType.NOT_READY, "There are other wordings of this prompt. Remove them first.");
        }
        events.publishEvent(new PromptChanges.Removed(id));
        faults.deleteAll(faults.findByPromptId(id));
        repository.delete(prompt);
    }

    /** Says how many prompts there are and which lack something. */
    @Component
    static class PromptStep implements StepReport {
        private final Prompts prompts;

        PromptStep(Prompts prompts) {
            this.prompts = prompts;
        }

        @Override
        public Step step() {
            return Step.PROMPTS;
        }

        @Override
        public StepState stateOf(StudyId study) {
            List<Prompts.Outline> all = prompts.outlines(study);
            Map<Boolean, List<Prompts.Outline>> bySoundness =
                    all.stream().collect(Collectors.partitioningBy(Prompts.Outline::isFaulty));
            int sound = Require.known(bySoundness, false).size();
            int faulty = Require.known(bySoundness, true).size();
            long kindsUsed = Require.known(bySoundness, false).stream()
                    .map(Prompts.Outline::kindId)
                    .distinct()
                    .count();
            String line = counted(sound, "prompt", "prompts") + ", " + counted((int) kindsUsed, "kind", "kinds")
                    + (faulty == 0 ? "" : ", " + faulty + " set aside");
            List<String> missing = missing(all);
            double done = sound == 0 ? 0 : 1 - (double) unfinished(all).size() / all.size();
            return new StepState(Step.PROMPTS, done, line, missing.isEmpty() ? null : missing.get(0));
        }

        private static String counted(int n, String one, String many) {
            return n + " " + (n == 1 ? one : many);
        }

        private static List<Prompts.Outline> unfinished(List<Prompts.Outline> all) {
            return all.stream()
                    .filter(p -> !p.isFaulty())
                    .filter(p -> p.title().isBlank() || !p.isWritten())
                    .toList();
        }

        private static List<String> missing(List<Prompts.Outline> all) {
            List<String> missing = new ArrayList<>();
            if (all.stream().allMatch(Prompts.Outline::isFaulty)) {
                missing.add("no prompt yet");
            }
            for (Prompts.Outline prompt : unfinished(all)) {
                missing.add("“" + (prompt.title().isBlank() ? prompt.key() : prompt.title()) + "” lacks "
                        + (prompt.title().isBlank() ? "a title" : "its request"));
            }
            return missing;
        }

        @Override
        public List<String> missingBeforeRound(StudyId study) {
            return missing(prompts.outlines(study)).stream()
                    .map(m -> "Prompts: " + m + ".")
                    .toList();
        }
    }
}
