package org.mossbank.server.reconciliation.rows;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.reconciliation.Reconciliations;
import org.mossbank.server.reconciliation.SplitClosing;

/** A split that was talked about, with everything in it by its key. */
public record KeyedSplit(
        String answer,
        String criterion,
        Instant takenUpAt,
        String takenUpBy,
        @Nullable SplitClosing closing,
        List<KeyedWord> words,
        List<KeyedStance> stances,
        List<KeyedLook> looks) {

    /** @param rater absent for the lead */
    public record KeyedWord(@Nullable String rater, Instant at, String words, boolean namesKnown) {}

    public record KeyedStance(String rater, Instant at, int level, String reason, boolean namesKnown) {}

    /** @param given absent until it is given */
    public record KeyedLook(String rater, Instant askedAt, String askedBy, Reconciliations.@Nullable Given given) {}

    public static KeyedSplit of(Reconciliations.Kept kept, Keys keys) {
        return new KeyedSplit(
                keys.of(kept.answerId()),
                keys.of(kept.criterionId()),
                kept.takenUpAt(),
                kept.takenUpBy(),
                kept.closing(),
                kept.words().stream()
                        .map(w -> new KeyedWord(keys.orNone(w.author()), w.at(), w.words(), w.namesKnown()))
                        .toList(),
                kept.stood().stream()
                        .filter(s -> keys.orNone(s.rater()) != null)
                        .map(s -> new KeyedStance(keys.of(s.rater()), s.at(), s.level(), s.reason(), s.namesKnown()))
                        .toList(),
                kept.looks().stream()
                        .filter(l -> keys.orNone(l.rater()) != null)
                        .map(l -> new KeyedLook(keys.of(l.rater()), l.askedAt(), l.askedBy(), l.given()))
                        .toList());
    }

    /** As it is kept; the lead's words are those of whoever brings it in. */
    public Reconciliations.Kept kept(NewIds ids, AccountId lead) {
        return new Reconciliations.Kept(
                Require.known(ids.answers(), answer),
                Require.known(ids.criteria(), criterion),
                takenUpAt,
                takenUpBy,
                closing,
                words.stream()
                        .map(w -> new Reconciliations.Word(
                                w.rater() == null ? lead : Require.known(ids.people(), w.rater()),
                                w.words(),
                                w.at(),
                                w.namesKnown()))
                        .toList(),
                stances.stream()
                        .map(s -> new Reconciliations.Stood(
                                Require.known(ids.people(), s.rater()), s.level(), s.reason(), s.at(), s.namesKnown()))
                        .toList(),
                looks.stream()
                        .map(l -> new Reconciliations.Look(
                                Require.known(ids.people(), l.rater()), l.askedAt(), l.askedBy(), l.given()))
                        .toList());
    }
}
