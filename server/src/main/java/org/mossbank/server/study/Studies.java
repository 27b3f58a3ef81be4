package org.mossbank.server.study;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.study.people.Expectation;
import org.mossbank.server.study.people.ExpectationRepository;
import org.mossbank.server.study.people.Membership;
import org.mossbank.server.study.people.MembershipRepository;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Studies, for other modules. */
@Service
@Transactional(readOnly = true)
public class Studies {
    private final StudyRepository studies;
    private final MembershipRepository memberships;
    private final BriefReopeningRepository reopenings;
    private final ExpectationRepository expectations;
    private final RoundStage rounds;
    private final EntityManager entities;
    private final Clock clock;
    private final ApplicationEventPublisher events;

    Studies(
            StudyRepository studies,
            MembershipRepository memberships,
            BriefReopeningRepository reopenings,
            ExpectationRepository expectations,
            RoundStage rounds,
            EntityManager entities,
            Clock clock,
            ApplicationEventPublisher events) {
        this.events = events;
        this.studies = studies;
        this.memberships = memberships;
        this.reopenings = reopenings;
        this.expectations = expectations;
        this.rounds = rounds;
        this.entities = entities;
        this.clock = clock;
    }

    /**
     * What a new study starts from; people by account.
     *
     * @param asked those of the raters who have accounts of their own, and belong to the study once they accept
     */
    public record NewStudy(
            String title,
            Brief brief,
            @Nullable Instant briefClosedAt,
            @Nullable KeptForecast forecast,
            long seed,
            AccountId lead,
            boolean leadGrades,
            Set<AccountId> raters,
            Set<AccountId> asked,
            List<Reopening> reopenings,
            List<Declared> expectations) {}

    @SystemOnly
    @Transactional
    public StudyId create(NewStudy start) {
        Study study = Study.of(start.title(), start.brief(), start.seed(), clock.instant());
        if (start.briefClosedAt() != null) {
            study.closeBrief(start.briefClosedAt(), start.forecast());
        }
        entities.persist(study);
        Membership lead = Membership.of(study.id(), start.lead(), Role.LEAD);
        if (start.leadGrades()) {
            lead.takeSheets();
        }
        entities.persist(lead);
        start.raters().stream()
                .filter(rater -> !rater.equals(start.lead()))
                .forEach(rater -> entities.persist(
                        start.asked().contains(rater)
                                ? Membership.asked(study.id(), rater, Role.RATER)
                                : Membership.of(study.id(), rater, Role.RATER)));
        start.reopenings().forEach(r -> entities.persist(BriefReopening.of(study.id(), r)));
        for (Declared declared : start.expectations()) {
            Expectation expectation = Expectation.of(new Membership.Key(study.id(), declared.accountId()));
            expectation.declare(declared.expects(), declared.usesToday(), declared.declaredAt());
            entities.persist(expectation);
        }
        return study.id();
    }

    @SystemOnly
    public boolean isEmpty() {
        return studies.count() == 0;
    }

    @SystemOnly
    public StudyView get(StudyId study) {
        return studies.findById(study).orElseThrow().view();
    }

    @SystemOnly
    public Map<StudyId, StudyView> byId(Collection<StudyId> ids) {
        return studies.findAllById(ids).stream()
                .map(Study::view)
                .collect(Collectors.toMap(StudyView::id, Function.identity()));
    }

    /** Everybody who grades in a study, a lead who does so too included. */
    @SystemOnly
    public List<AccountId> raters(StudyId study) {
        return memberships.ofStudy(study).stream()
                .filter(Membership::grades)
                .map(Membership::accountId)
                .toList();
    }

    /** The same of some studies, however many, with one question. */
    @SystemOnly
    public Map<StudyId, Set<AccountId>> raters(Collection<StudyId> some) {
        return memberships.ofStudies(some).stream()
                .filter(Membership::grades)
                .collect(Collectors.groupingBy(
                        Membership::studyId, Collectors.mapping(Membership::accountId, Collectors.toSet())));
    }

    /** Whether somebody belongs to a study, and has accepted where they were asked. */
    @SystemOnly
    public boolean hasAccepted(StudyId study, AccountId account) {
        return memberships
                .findById(new Membership.Key(study, account))
                .filter(Membership::isAccepted)
                .isPresent();
    }

    /** Raters who were asked and have not accepted. */
    @SystemOnly
    public List<AccountId> notAccepted(StudyId study) {
        return memberships.ofStudy(study).stream()
                .filter(m -> !m.isAccepted())
                .map(Membership::accountId)
                .toList();
    }

    /** Everybody of a study, with what they are; without those who were asked to lead it and have not accepted. */
    @SystemOnly
    public Map<AccountId, Role> members(StudyId study) {
        return memberships.ofStudy(study).stream()
                .filter(m -> m.isAccepted() || m.role() != Role.LEAD)
                .collect(Collectors.toMap(Membership::accountId, Membership::role));
    }

    /** Makes a lead one of those who grade. */
    @SystemOnly
    @Transactional
    public void leadGrades(StudyId study, AccountId lead) {
        memberships.findById(new Membership.Key(study, lead)).orElseThrow().takeSheets();
    }

    /** The studies that a person leads. */
    @SystemOnly
    public List<StudyId> ofLead(AccountId account) {
        return memberships.ofAccount(account).stream()
                .filter(m -> m.role() == Role.LEAD && m.isAccepted())
                .map(Membership::studyId)
                .toList();
    }

    /** The studies that a person belongs to, and has accepted where they were asked. */
    @SystemOnly
    public Map<StudyId, Role> ofMember(AccountId account) {
        return memberships.ofAccount(account).stream()
                .filter(Membership::isAccepted)
                .collect(Collectors.toMap(Membership::studyId, Membership::role));
    }

    /** When, by whom and why the closed brief was opened again, oldest first. */
    @SystemOnly
    public List<Reopening> reopenings(StudyId study) {
        return reopenings.findByStudyIdOrderByReopenedAt(study).stream()
                .map(BriefReopening::view)
                .toList();
    }

    /** What people expected before they saw anything. */
    @SystemOnly
    public List<Declared> expectations(StudyId study) {
        return expectations.ofStudy(study).stream().map(Expectation::view).toList();
    }

    /** A rater was taken out of a study; told within the same transaction. */
    public record RaterLeft(StudyId studyId, AccountId raterId) {}

    @SystemOnly
    @Transactional
    public void left(StudyId study, AccountId rater) {
        entities.flush();
        events.publishEvent(new RaterLeft(study, rater));
    }

    /** A study was deleted; told within the same transaction, while its people still belong to it. */
    public record StudyDeleted(StudyId studyId) {}

    private void held(StudyId study) {
        studies.hold(study);
        refuseIfDeleted(study);
    }

    private void locked(StudyId study) {
        studies.lock(study);
        refuseIfDeleted(study);
    }

    /** Whoever was let in just before it was deleted writes nothing into it. */
    private void refuseIfDeleted(StudyId study) {
        if (studies.isDeleted(study)) {
            throw Problem.notFound("This study");
        }
    }

    /** Whether a study is there, and does not stand deleted. */
    @SystemOnly
    public boolean isThere(StudyId study) {
        return studies.existsById(study) && !studies.isDeleted(study);
    }

    /** Whether a person has still to say what they expect. */
    @SystemOnly
    public boolean awaitsExpectation(StudyId study, AccountId account) {
        return get(study).brief().asksExpectations() && !expectations.existsById(new Membership.Key(study, account));
    }

    @SystemOnly
    public RoundStage.Stage stage(StudyId study) {
        return rounds.of(study);
    }

    /** Of each of these, however many, with one question. */
    @SystemOnly
    public Map<StudyId, RoundStage.Stage> stages(Collection<StudyId> some) {
        return rounds.ofAll(some);
    }

    /**
     * Holds the study in preparation until the transaction ends.
     *
     * @throws Problem 409 unless everything can still be changed
     */
    @SystemOnly
    public void requirePreparing(StudyId study) {
        held(study);
        refuseUnlessPreparing(study);
    }

    /** Holds the study until the transaction ends, so that two who write the same thing come one after the other. */
    @SystemOnly
    public void holdFor(StudyId study) {
        held(study);
    }

    /**
     * Holds the study until the transaction ends.
     *
     * @throws Problem 409 once its round is closed
     */
    @SystemOnly
    public void requireNotClosed(StudyId study) {
        held(study);
        if (rounds.of(study) == RoundStage.Stage.CLOSED) {
            throw new Problem(
                    ProblemType.ROUND_CLOSED, "The round is closed. Nobody comes in until it is opened again.");
        }
    }

    /**
     * Takes the study alone, so that nothing is changed while its round is opened.
     *
     * @throws Problem 409 if it was opened already
     */
    @SystemOnly
    public void claimForRound(StudyId study) {
        locked(study);
        refuseUnlessPreparing(study);
    }

    /** Takes the study alone until the transaction ends. */
    @SystemOnly
    public void claim(StudyId study) {
        locked(study);
    }

    /**
     * Takes the study alone while its raters grade, until the transaction ends.
     *
     * @throws Problem 409 unless they do
     */
    @SystemOnly
    public void claimWhileGrading(StudyId study) {
        locked(study);
        if (rounds.of(study) != RoundStage.Stage.GRADING) {
            throw new Problem(ProblemType.NOT_READY, "Grading does not go on.");
        }
    }

    /**
     * Holds the study until the transaction ends: what counts stays as it is once its round is closed.
     *
     * @throws Problem 409 if it is
     */
    @SystemOnly
    public void refuseOnceClosed(StudyId study) {
        held(study);
        if (rounds.of(study) == RoundStage.Stage.CLOSED) {
            throw new Problem(
                    ProblemType.ROUND_CLOSED,
                    "The round is closed. What counts stays as it is until it is opened again with a reason.");
        }
    }

    private void refuseUnlessPreparing(StudyId study) {
        if (rounds.of(study) != RoundStage.Stage.PREPARING) {
            throw new Problem(
                    ProblemType.ROUND_OPENED, "The round has been opened. What raters grade by stays as it is.");
        }
    }
}
