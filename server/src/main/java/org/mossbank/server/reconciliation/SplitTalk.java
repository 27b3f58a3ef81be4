package org.mossbank.server.reconciliation;

import jakarta.persistence.EntityManager;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import java.util.function.UnaryOperator;
import org.mossbank.server.account.Actor;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.study.StudyAccess;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** The talk about one split. */
@Service
@Transactional
class SplitTalk {
    /** The most that is said about one split. */
    static final int MOST_WORDS = 500;

    private final SplitPages pages;
    private final SplitLocks locks;
    private final SplitReaders readers;
    private final SplitRecords records;
    private final Masking masking;
    private final StudyAccess access;
    private final Actor actor;
    private final EntityManager entities;

    SplitTalk(
            SplitPages pages,
            SplitLocks locks,
            SplitReaders readers,
            SplitRecords records,
            Masking masking,
            StudyAccess access,
            Actor actor,
            EntityManager entities) {
        this.pages = pages;
        this.locks = locks;
        this.readers = readers;
        this.records = records;
        this.masking = masking;
        this.access = access;
        this.actor = actor;
        this.entities = entities;
    }

    /** The page; that it was read is kept. */
    @PreAuthorize("@splitAccess.mayRead(#id)")
    public SplitPage page(UUID id) {
        records.read(id, actor.id(), actor.now());
        return page(locks.found(id));
    }

    private SplitPage page(Reconciliation split) {
        UnaryOperator<String> spoken =
                access.maySeeAll(split.studyId()) ? UnaryOperator.identity() : masking.said(split.studyId());
        return pages.page(split, new SplitPages.Reader(actor.id(), access.mayPrepare(split.studyId()), spoken));
    }

    /**
     * Says something; the same id again says nothing more.
     *
     * @throws Problem 409 if the split or the round is closed, or too much was said
     */
    @PreAuthorize("@splitAccess.mayRead(#id)")
    public SplitPage say(UUID id, SplitRequests.Say request) {
        if (records.isSaid(request.id())) {
            return page(locks.found(id));
        }
        Reconciliation split = locks.open(id);
        if (records.countWords(id) >= MOST_WORDS) {
            throw new Problem(ProblemType.TOO_LATE, "Nobody reads more than %d words here.".formatted(MOST_WORDS));
        }
        entities.persist(SplitWord.of(
                request.id(),
                id,
                new Reconciliations.Word(
                        actor.id(), request.words().strip(), actor.now(), access.knowsNames(split.studyId()))));
        entities.flush();
        return page(split);
    }

    /**
     * Says at which level one stands now; the grade that was given stays. Once all stand at one level, it is settled.
     *
     * @throws Problem 403 for somebody who gave no grade; 409 if the split or the round is closed
     */
    @PreAuthorize("@splitAccess.mayRead(#id)")
    public SplitPage stand(UUID id, SplitRequests.Stand request) {
        // It may be the one that closed the split, and its answer was lost on the way.
        if (records.isTaken(request.id())) {
            return page(locks.found(id));
        }
        Reconciliation split = locks.open(id);
        List<SplitReaders.Rated> rated =
                readers.rated(split, readers.answer(split).promptId());
        AccountId own = actor.id();
        if (rated.stream().noneMatch(r -> r.rater().equals(own))) {
            throw new Problem(ProblemType.NOT_ALLOWED, "Where one stands is for those who gave a grade.");
        }
        locks.requireLevel(split, request.level());
        entities.persist(Stance.of(
                request.id(),
                id,
                new Reconciliations.Stood(
                        own,
                        request.level(),
                        request.reason().strip(),
                        actor.now(),
                        access.knowsNames(split.studyId()))));
        entities.flush();
        settleIfAllAgree(split, rated);
        return page(split);
    }

    private void settleIfAllAgree(Reconciliation split, List<SplitReaders.Rated> rated) {
        List<Integer> levels = rated.stream()
                .map(r -> records.standsAt(split.id(), r.rater()))
                .distinct()
                .toList();
        if (levels.size() == 1 && levels.get(0) != null) {
            int level = Objects.requireNonNull(levels.get(0));
            locks.close(
                    split,
                    new SplitClosing(
                            SplitClosing.How.CONSENT,
                            (double) level,
                            "all %d raters".formatted(rated.size()),
                            actor.now(),
                            "",
                            access.knowsNames(split.studyId())));
        }
    }

    /** What one is asked to look at, blind. */
    @PreAuthorize("@splitAccess.isAskedToLook(#id)")
    @Transactional(readOnly = true)
    public SplitViews.BlindLook look(UUID id) {
        return look(locks.found(id));
    }

    private SplitViews.BlindLook look(Reconciliation split) {
        SplitPages.About about = pages.about(split);
        Reconciliations.Given given =
                records.lookOf(split.id(), actor.id()).look().given();
        return new SplitViews.BlindLook(
                split.id(),
                records.studyTitle(split.studyId()),
                about.prompt(),
                about.criterion(),
                about.answer().text(),
                given == null ? null : given.level(),
                given == null ? "" : given.reason(),
                split.isOpen());
    }

    /**
     * Gives a blind look: the median of all, this one among them, stands.
     *
     * @throws Problem 409 if the split or the round is closed, or the look was given
     */
    @PreAuthorize("@splitAccess.isAskedToLook(#id)")
    public SplitViews.BlindLook giveLook(UUID id, SplitRequests.GiveLook request) {
        Reconciliation split = locks.open(id);
        locks.requireLevel(split, request.level());
        ThirdLook look = records.lookOf(id, actor.id());
        if (look.isGiven()) {
            throw new Problem(ProblemType.CHANGED_ELSEWHERE, "You have given this look already.");
        }
        look.give(new Reconciliations.Given(request.level(), request.reason().strip(), actor.now()));
        List<Integer> levels = new java.util.ArrayList<>(
                SplitPages.levels(readers.rated(split, readers.answer(split).promptId()), split));
        levels.add(request.level());
        locks.close(
                split,
                new SplitClosing(
                        SplitClosing.How.THIRD_LOOK,
                        median(levels),
                        actor.name(),
                        actor.now(),
                        request.reason().strip(),
                        access.knowsNames(split.studyId())));
        return look(split);
    }

    /** Of an even number, between the middle two. */
    static double median(List<Integer> levels) {
        List<Integer> sorted = levels.stream().sorted().toList();
        int n = sorted.size();
        return (sorted.get((n - 1) / 2) + sorted.get(n / 2)) / 2.0;
    }
}
