package org.mossbank.server.study;

import jakarta.persistence.EntityManager;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.random.RandomGenerator;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.Actor;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.progress.Step;
import org.mossbank.server.progress.StepReport;
import org.mossbank.server.progress.StepState;
import org.mossbank.server.study.people.Membership;
import org.mossbank.server.study.people.MembershipRepository;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.context.event.EventListener;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What a person sees of their studies, and beginning one. */
@Service
@Transactional(readOnly = true)
class StudyService {
    /** Seeds stay whole in every JSON reader. */
    private static final long HIGHEST_SEED = (1L << 53) - 1;

    /** More are looked through page by page. */
    private static final int MOST_LISTED = 200;

    private final StudyRepository studies;
    private final MembershipRepository memberships;
    private final StudyAccess access;
    private final RoundStage rounds;
    private final List<StepReport> reports;
    private final EntityManager entities;
    private final ApplicationEventPublisher events;
    private final Actor actor;

    StudyService(
            StudyRepository studies,
            MembershipRepository memberships,
            StudyAccess access,
            RoundStage rounds,
            List<StepReport> reports,
            EntityManager entities,
            ApplicationEventPublisher events,
            Actor actor) {
        this.actor = actor;
        this.studies = studies;
        this.memberships = memberships;
        this.access = access;
        this.rounds = rounds;
        this.reports = reports;
        this.entities = entities;
        this.events = events;
    }

    /**
     * A study in a list.
     *
     * @param role  what the person asking is in it
     * @param stage how far its round is
     * @param blind whether names, measures, grades and results are hidden from the person asking
     */
    record StudySummary(
            StudyId id, String title, Instant createdAt, Role role, RoundStage.Stage stage, boolean blind) {}

    /** The studies of whoever asks that are not put away, newest first; the list to look through has all. */
    @PreAuthorize("isAuthenticated()")
    public List<StudySummary> mine() {
        Map<StudyId, Membership> own = memberships.ofAccount(actor.id()).stream()
                .filter(Membership::isAccepted)
                .collect(Collectors.toMap(Membership::studyId, Function.identity()));
        Map<StudyId, RoundStage.Stage> stages = rounds.ofAll(own.keySet());
        return studies.headsOf(actor.id()).stream()
                .filter(h -> h.putAwayAt() == null)
                .limit(MOST_LISTED)
                .map(h -> summary(h, Require.known(own, h.id()), Require.known(stages, h.id())))
                .toList();
    }

    @PreAuthorize("@studyAccess.mayEnter(#study)")
    public StudySummary one(StudyId study) {
        StudyView view = studies.findById(study).orElseThrow().view();
        return summary(
                new StudyRepository.Head(view.id(), view.title(), view.createdAt(), null),
                memberships.findById(new Membership.Key(study, actor.id())).orElseThrow(),
                rounds.of(study));
    }

    private static StudySummary summary(StudyRepository.Head study, Membership membership, RoundStage.Stage stage) {
        return new StudySummary(
                study.id(),
                study.title(),
                study.createdAt(),
                membership.role(),
                stage,
                StudyAccess.isBlind(membership, () -> stage));
    }

    /** Puts a study out of the way, for all who belong to it; it goes on as it is. */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public void putAway(StudyId study) {
        studies.lock(study).orElseThrow().putAway(actor.now());
        events.publishEvent(new PutAway(study, true));
    }

    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public void bringBack(StudyId study) {
        studies.lock(study).orElseThrow().bringBack();
        events.publishEvent(new PutAway(study, false));
    }

    /** @param away or brought back */
    record PutAway(StudyId study, boolean away) {}

    record BeginStudy(@NotBlank @Size(max = 200) String title) {}

    /** Begins an empty study with whoever asks as its lead. */
    @PreAuthorize("@studyAccess.mayBringIn()")
    @Transactional
    public StudySummary begin(BeginStudy request) {
        long seed = RandomGenerator.getDefault().nextLong(HIGHEST_SEED);
        Study study = Study.of(request.title().strip(), Brief.BLANK, seed, actor.now());
        entities.persist(study);
        entities.persist(Membership.of(study.id(), actor.id(), Role.LEAD));
        entities.flush();
        events.publishEvent(new StudyBegun(study.id()));
        return one(study.id());
    }

    /** Writes down that a study was begun. */
    @Component
    static class BegunOnRecord {
        private final Audit audit;
        private final Studies studies;

        BegunOnRecord(Audit audit, Studies studies) {
            this.audit = audit;
            this.studies = studies;
        }

        @EventListener
        public void putAway(PutAway event) {
            audit.keep(event.away() ? AuditSort.STUDY_PUT_AWAY : AuditSort.STUDY_BROUGHT_BACK, event.study(), "");
        }

        @EventListener
        public void begun(StudyBegun event) {
            audit.keep(
                    AuditSort.STUDY_BEGUN,
                    event.studyId(),
                    studies.get(event.studyId()).title());
        }
    }

    /** Steps that a blind lead may follow: they tell neither names nor results. */
    private static final Set<Step> BLIND_STEPS = Set.of(Step.BRIEF, Step.PROMPTS, Step.RUBRIC, Step.GRADING);

    /** How far each step is, in the order of the job. */
    @PreAuthorize("@studyAccess.mayLead(#study) or @studyAccess.maySeeAll(#study)")
    @Transactional(propagation = Propagation.NEVER)
    public List<StepState> steps(StudyId study) {
        boolean all = access.maySeeAll(study);
        Map<Step, StepReport> byStep =
                reports.stream().collect(Collectors.toMap(StepReport::step, Function.identity()));
        return Arrays.stream(Step.values())
                .filter(byStep::containsKey)
                .map(step -> all || BLIND_STEPS.contains(step)
                        ? Require.known(byStep, step).stateOf(study)
                        : new StepState(step, 0, "hidden while you grade", null))
                .toList();
    }
}
