package org.mossbank.server.prompt;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.mossbank.server.account.Actor;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.study.FiguresChanged;
import org.mossbank.server.study.Studies;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Setting a prompt aside, so that it counts nowhere, and taking it up again. */
@Service
@Transactional
class PromptFaults {
    private final PromptService prompts;
    private final PromptFaultRepository faults;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;
    private final Studies studies;
    private final Acts acts;
    private final Actor actor;

    PromptFaults(
            PromptService prompts,
            PromptFaultRepository faults,
            EntityManager entities,
            ApplicationEventPublisher events,
            Studies studies,
            Acts acts,
            Actor actor) {
        this.studies = studies;
        this.acts = acts;
        this.prompts = prompts;
        this.faults = faults;
        this.entities = entities;
        this.events = events;
        this.actor = actor;
    }

    record FaultReason(@NotBlank @Size(max = 2000) String reason) {}

    /** Sets a prompt aside as faulty: from now on it counts nowhere. Doing it twice is the same as once. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public PromptService.PromptTitle setAside(StudyId study, PromptId id, FaultReason request) {
        studies.refuseOnceClosed(study);
        Prompt prompt = prompts.locked(study, id);
        if (!prompts.one(study, prompt).isFaulty()) {
            entities.persist(PromptFault.of(
                    id,
                    new PromptView.FaultView(
                            actor.now(), actor.name(), request.reason().strip())));
            events.publishEvent(new FiguresChanged(study));
            acts.keep(
                    study, ActSort.PROMPT_SET_ASIDE, prompts.one(study, prompt).title(), request.reason());
        }
        PromptView view = prompts.one(study, prompt);
        return new PromptService.PromptTitle(id, view.title(), view.kind(), true);
    }

    /** Lets a prompt count again. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    public PromptService.PromptTitle takeUp(StudyId study, PromptId id, FaultReason request) {
        studies.refuseOnceClosed(study);
        Prompt prompt = prompts.locked(study, id);
        List<PromptFault> standing = faults.findByPromptIdInAndTakenBackAtIsNull(List.of(id));
        standing.forEach(f -> f.takeBack(actor.now()));
        events.publishEvent(new FiguresChanged(study));
        entities.flush();
        PromptView view = prompts.one(study, prompt);
        if (!standing.isEmpty()) {
            acts.keep(study, ActSort.PROMPT_TAKEN_UP, view.title(), request.reason());
        }
        return new PromptService.PromptTitle(id, view.title(), view.kind(), false);
    }
}
