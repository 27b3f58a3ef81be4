package org.mossbank.server.acts;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.UUID;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.account.Actor;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** The record of a study's acts, for other modules. */
@Service
@Transactional(readOnly = true)
public class Acts {
    private final ActRepository acts;
    private final ActOutcomeRepository outcomes;
    private final EntityManager entities;
    private final Sight sight;
    private final Actor actor;
    private final Audit audit;

    Acts(
            ActRepository acts,
            ActOutcomeRepository outcomes,
            EntityManager entities,
            Sight sight,
            Actor actor,
            Audit audit) {
        this.acts = acts;
        this.outcomes = outcomes;
        this.entities = entities;
        this.sight = sight;
        this.actor = actor;
        this.audit = audit;
    }

    /**
     * Keeps what whoever asks does, within the transaction that does it: both or neither.
     *
     * @param subject what it is done to, in words; may be empty
     * @throws IllegalStateException unless it is done through {@link OnRecord}, which knows what the outcome was before
     */
    @SystemOnly
    @Transactional(propagation = Propagation.MANDATORY)
    public void keep(StudyId study, ActSort sort, String subject, String reason) {
        entities.persist(Act.of(
                study,
                new ActView(
                        sort,
                        subject.strip(),
                        reason.strip(),
                        actor.name(),
                        actor.now(),
                        sight.knowsNames(study),
                        OnRecord.before(study).orElse(null),
                        null)));
        audit.keep(AuditSort.valueOf(sort.name()), study, subject);
    }

    /** Writes down what changes no outcome yet, and is known to whoever leads. */
    @SystemOnly
    @Transactional(propagation = Propagation.MANDATORY)
    public void note(StudyId study, AuditSort sort, String subject) {
        audit.keep(sort, study, subject);
    }

    /** Oldest first. */
    @SystemOnly
    public List<ActView> ofStudy(StudyId study) {
        Map<UUID, ActOutcome> after =
                outcomes.ofStudy(study).stream().collect(Collectors.toMap(ActOutcome::actId, Function.identity()));
        return acts.ofStudy(study).stream()
                .map(a -> a.view(Optional.ofNullable(after.get(a.id()))
                        .map(ActOutcome::told)
                        .orElse(null)))
                .toList();
    }

    /** As an archive brings them, oldest first. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, List<ActView> all) {
        for (ActView one : all) {
            Act act = Act.of(study, one);
            entities.persist(act);
            OutcomeTeller.Told after = one.after();
            if (after != null) {
                entities.persist(ActOutcome.of(act.id(), after, one.at()));
            }
        }
    }

    /** Writes down what came of the acts of which that is not known yet. */
    @SystemOnly
    @Transactional
    public void cameOf(StudyId study, OutcomeTeller.Told told) {
        acts.withoutOutcome(study).forEach(id -> entities.persist(ActOutcome.of(id, told, actor.now())));
    }
}
