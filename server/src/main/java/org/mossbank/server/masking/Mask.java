package org.mossbank.server.masking;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.core.masking.Span;
import org.mossbank.server.ids.AnswerId;

/** What was decided of one stretch of an answer: to mask it, or to leave it. */
@Entity
class Mask {
    @Id
    private UUID id;

    private AnswerId answerId;

    @Column(name = "span_from")
    private int from;

    @Column(name = "span_to")
    private int to;

    private String found;

    @Enumerated(EnumType.STRING)
    private GiveAway.Sort sort;

    private String replacement;
    private boolean accepted;
    private Instant decidedAt;

    @SuppressWarnings("NullAway.Init")
    protected Mask() {}

    static Mask of(AnswerId answer, Masking.Decided decided) {
        Mask mask = new Mask();
        mask.id = UUID.randomUUID();
        mask.answerId = answer;
        mask.from = decided.from();
        mask.to = decided.to();
        mask.found = decided.found();
        mask.sort = decided.sort();
        mask.decide(decided.accepted(), decided.replacement(), decided.at());
        return mask;
    }

    void decide(boolean isAccepted, String newReplacement, Instant at) {
        accepted = isAccepted;
        replacement = newReplacement;
        decidedAt = at;
    }

    AnswerId answerId() {
        return answerId;
    }

    Span span() {
        return new Span(from, to);
    }

    Masking.Decided decided() {
        return new Masking.Decided(from, to, found, sort, replacement, accepted, decidedAt);
    }
}
