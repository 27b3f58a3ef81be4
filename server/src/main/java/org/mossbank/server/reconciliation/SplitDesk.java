package org.mossbank.server.reconciliation;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.Comparator;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.mossbank.server.account.Actor;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Which splits of a study are talked about. */
@Service
@Transactional(readOnly = true)
class SplitDesk {
    /** The most splits that a study talks about. */
    static final int MOST = 2000;

    private final ReconciliationRepository all;
    private final SplitWordRepository words;
    private final StanceRepository stances;
    private final Grading grading;
    private final Actor actor;
    private final EntityManager entities;

    SplitDesk(
            ReconciliationRepository all,
            SplitWordRepository words,
            StanceRepository stances,
            Grading grading,
            Actor actor,
            EntityManager entities) {
        this.all = all;
        this.words = words;
        this.stances = stances;
        this.grading = grading;
        this.actor = actor;
        this.entities = entities;
    }

    @PreAuthorize("@studyAccess.maySeeAll(#study) and @studyAccess.mayLead(#study)")
    public List<SplitViews.TakenUp> ofStudy(StudyId study) {
        Map<UUID, Long> said = words.saidIn(List.of(study)).stream()
                .collect(Collectors.groupingBy(SplitWordRepository.Said::reconciliationId, Collectors.counting()));
        Map<UUID, Long> standing = stances.ofStudies(List.of(study)).stream()
                .map(s -> Map.entry(s.reconciliationId(), s.stood().rater()))
                .distinct()
                .collect(Collectors.groupingBy(Map.Entry::getKey, Collectors.counting()));
        return all.findByStudyIdInOrderByTakenUpAt(List.of(study)).stream()
                .map(r -> {
                    SplitClosing closing = r.closing();
                    return new SplitViews.TakenUp(
                            r.id(),
                            r.answerId(),
                            r.criterionId(),
                            r.state(),
                            closing == null ? null : closing.how(),
                            r.settledLevel(),
                            said.getOrDefault(r.id(), 0L).intValue(),
                            standing.getOrDefault(r.id(), 0L).intValue());
                })
                .toList();
    }

    /**
     * Takes splits up, those that are already left as they are.
     *
     * @throws Problem 400 if one is no split; 409 unless the round is open
     */
    @PreAuthorize("@studyAccess.mayPrepare(#study)")
    @Transactional
    public SplitViews.TookUp takeUp(StudyId study, SplitRequests.TakeUp request) {
        grading.requireOpen(study);
        Set<Splits.Place> there = new HashSet<>(Splits.of(grading.sentGrades(study)));
        List<Splits.Place> asked = request.splits().stream()
                .map(s -> new Splits.Place(s.answerId(), s.criterionId()))
                .toList();
        if (!there.containsAll(asked)) {
            throw Problem.invalid("splits", "must each be an answer and criterion on which raters are split");
        }
        return taken(study, asked);
    }

    /**
     * Takes the widest up. A lead who grades may do so too: it shows no grade.
     *
     * @throws Problem 409 unless the round is open
     */
    @PreAuthorize("@studyAccess.mayLead(#study)")
    @Transactional
    public SplitViews.TookUp takeUpWidest(StudyId study, SplitRequests.TakeUpWidest request) {
        grading.requireOpen(study);
        Set<Splits.Place> known = known(study);
        return taken(
                study,
                Splits.of(grading.sentGrades(study)).stream()
                        .filter(s -> !known.contains(s))
                        .limit(request.count())
                        .toList());
    }

    private Set<Splits.Place> known(StudyId study) {
        return all.findByStudyIdInOrderByTakenUpAt(List.of(study)).stream()
                .map(r -> new Splits.Place(r.answerId(), r.criterionId()))
                .collect(Collectors.toSet());
    }

    private SplitViews.TookUp taken(StudyId study, List<Splits.Place> splits) {
        Set<Splits.Place> known = known(study);
        List<Splits.Place> fresh =
                splits.stream().distinct().filter(s -> !known.contains(s)).toList();
        if (known.size() + fresh.size() > MOST) {
            throw Problem.invalid("splits", "must be at most %d in a study".formatted(MOST));
        }
        Instant now = actor.now();
        String by = actor.name();
        fresh.forEach(s -> entities.persist(Reconciliation.of(study, s.answerId(), s.criterionId(), by, now)));
        return new SplitViews.TookUp(fresh.size());
    }

    static final Comparator<SplitViews.OwnSplit> FIRST_WHAT_WAITS = Comparator.comparing(
                    (SplitViews.OwnSplit s) -> s.waitsFor() == SplitViews.WaitsFor.NOTHING)
            .thenComparing(s -> s.state() != SplitClosing.State.OPEN);
}
