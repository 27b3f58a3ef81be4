package org.mossbank.server.reconciliation;

import jakarta.persistence.EntityManager;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Actor;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.Acts;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.StudyAccess;
import org.mossbank.server.study.StudyPeople;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How the lead ends the talk about a split. */
@Service
@Transactional
class SplitClosings {
    private final SplitLocks locks;
    private final SplitPages pages;
    private final LookOut lookOut;
    private final StudyPeople names;
    private final Acts acts;
    private final Actor actor;
    private final StudyAccess access;
    private final EntityManager entities;

    SplitClosings(
            SplitLocks locks,
            SplitPages pages,
            LookOut lookOut,
            StudyPeople names,
            Acts acts,
            Actor actor,
            StudyAccess access,
            EntityManager entities) {
        this.locks = locks;
        this.pages = pages;
        this.lookOut = lookOut;
        this.names = names;
        this.acts = acts;
        this.actor = actor;
        this.access = access;
        this.entities = entities;
    }

    /**
     * Settles a split at a level.
     *
     * @throws Problem 409 if somebody else closed it, or the round is closed
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void settle(StudyId study, UUID id, SplitRequests.Settle request) {
        Reconciliation split = open(study, id);
        locks.requireLevel(split, request.level());
        close(split, (double) request.level(), request.reason());
        acts.keep(study, ActSort.SPLIT_SETTLED, "%s: %d".formatted(subject(split), request.level()), request.reason());
    }

    /** Ends the talk without a settled grade. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void leaveOpen(StudyId study, UUID id, SplitRequests.LeaveOpen request) {
        Reconciliation split = open(study, id);
        close(split, null, request.reason());
        acts.keep(study, ActSort.SPLIT_LEFT_OPEN, subject(split), request.reason());
    }

    private void close(Reconciliation split, @org.jspecify.annotations.Nullable Double level, String reason) {
        locks.close(
                split,
                new SplitClosing(
                        SplitClosing.How.LEAD,
                        level,
                        actor.name(),
                        actor.now(),
                        reason.strip(),
                        access.knowsNames(split.studyId())));
    }

    /** Opens a closed split again; what was said stays. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void openAgain(StudyId study, UUID id, SplitRequests.OpenSplitAgain request) {
        requireOf(study, id);
        Reconciliation split = locks.locked(id);
        if (!split.isOpen()) {
            locks.close(split, null);
            acts.keep(study, ActSort.SPLIT_OPENED_AGAIN, subject(split), request.reason());
        }
    }

    private Reconciliation open(StudyId study, UUID id) {
        requireOf(study, id);
        return locks.open(id);
    }

    private void requireOf(StudyId study, UUID id) {
        if (!locks.found(id).studyId().equals(study)) {
            throw Problem.notFound("This split");
        }
    }

    private String subject(Reconciliation split) {
        SplitPages.About about = pages.about(split);
        return "%s, %s".formatted(about.prompt().title(), about.criterion().name());
    }

    /** Who could look at the answer blind. */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional(readOnly = true)
    public List<SplitViews.MayLook> mayLook(StudyId study, UUID id) {
        requireOf(study, id);
        Set<AccountId> free = lookOut.free(locks.found(id));
        Map<AccountId, AccountView> people = names.of(study, free);
        return free.stream()
                .map(r -> new SplitViews.MayLook(r, Require.known(people, r).displayName()))
                .sorted(Comparator.comparing(SplitViews.MayLook::name))
                .collect(Collectors.toList());
    }

    /**
     * Asks somebody to look at the answer who sees no grades.
     *
     * @throws Problem 409 if they have seen it, or wrote it; or the split is closed
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    public void askLook(StudyId study, UUID id, SplitRequests.AskLook request) {
        Reconciliation split = open(study, id);
        if (!lookOut.free(split).contains(request.raterId())) {
            throw new Problem(
                    ProblemType.NOT_READY, "They have a sheet with this answer, wrote it, or were asked already.");
        }
        entities.persist(
                ThirdLook.of(id, new Reconciliations.Look(request.raterId(), actor.now(), actor.name(), null)));
    }
}
