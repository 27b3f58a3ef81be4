package org.mossbank.server.reconciliation;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Talks about splits and settled grades, for other modules. */
@Service
@Transactional(readOnly = true)
public class Reconciliations {
    private final ReconciliationRepository all;
    private final SplitWordRepository words;
    private final StanceRepository stances;
    private final ThirdLookRepository looks;
    private final EntityManager entities;

    Reconciliations(
            ReconciliationRepository all,
            SplitWordRepository words,
            StanceRepository stances,
            ThirdLookRepository looks,
            EntityManager entities) {
        this.all = all;
        this.words = words;
        this.stances = stances;
        this.looks = looks;
        this.entities = entities;
    }

    /** What somebody said, and whether they could see then who wrote the answer. */
    public record Word(AccountId author, String words, Instant at, boolean namesKnown) {}

    /** At which level a rater stood from then on. */
    public record Stood(AccountId rater, int level, String reason, Instant at, boolean namesKnown) {}

    /** What a third look came to. */
    public record Given(int level, String reason, Instant at) {}

    /** @param given absent until it is given */
    public record Look(
            AccountId rater,
            Instant askedAt,
            String askedBy,
            @Nullable Given given) {}

    /** A split that was taken up, with all that was said; lists oldest first. */
    public record Kept(
            AnswerId answerId,
            CriterionId criterionId,
            Instant takenUpAt,
            String takenUpBy,
            @Nullable SplitClosing closing,
            List<Word> words,
            List<Stood> stood,
            List<Look> looks) {}

    /** A grade that raters settled on; in levels, a median perhaps between two. */
    public record Settled(AnswerId answerId, CriterionId criterionId, double level) {}

    @SystemOnly
    public List<Settled> settled(StudyId study) {
        return all.findByStudyIdInOrderByTakenUpAt(List.of(study)).stream()
                .filter(r -> r.settledLevel() != null)
                .map(r -> new Settled(r.answerId(), r.criterionId(), r.settledLevel()))
                .toList();
    }

    @SystemOnly
    public List<Kept> ofStudy(StudyId study) {
        List<StudyId> one = List.of(study);
        Map<UUID, List<SplitWord>> said =
                words.ofStudies(one).stream().collect(Collectors.groupingBy(SplitWord::reconciliationId));
        Map<UUID, List<Stance>> stood =
                stances.ofStudies(one).stream().collect(Collectors.groupingBy(Stance::reconciliationId));
        Map<UUID, List<ThirdLook>> looked = looks.ofStudies(one).stream()
                .collect(Collectors.groupingBy(l -> l.key().reconciliationId()));
        return all.findByStudyIdInOrderByTakenUpAt(one).stream()
                .map(r -> new Kept(
                        r.answerId(),
                        r.criterionId(),
                        r.takenUpAt(),
                        r.takenUpBy(),
                        r.closing(),
                        said.getOrDefault(r.id(), List.of()).stream()
                                .map(SplitWord::word)
                                .toList(),
                        stood.getOrDefault(r.id(), List.of()).stream()
                                .map(Stance::stood)
                                .toList(),
                        looked.getOrDefault(r.id(), List.of()).stream()
                                .map(ThirdLook::look)
                                .toList()))
                .toList();
    }

    /** As an archive brings them. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, List<Kept> kept) {
        for (Kept one : kept) {
            Reconciliation taken =
                    Reconciliation.of(study, one.answerId(), one.criterionId(), one.takenUpBy(), one.takenUpAt());
            SplitClosing closing = one.closing();
            if (closing != null) {
                taken.close(closing);
            }
            entities.persist(taken);
            one.words().forEach(w -> entities.persist(SplitWord.of(UUID.randomUUID(), taken.id(), w)));
            one.stood().forEach(s -> entities.persist(Stance.of(UUID.randomUUID(), taken.id(), s)));
            one.looks().forEach(l -> entities.persist(ThirdLook.of(taken.id(), l)));
        }
    }
}
