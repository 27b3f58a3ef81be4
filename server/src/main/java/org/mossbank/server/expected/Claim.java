package org.mossbank.server.expected;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.io.Serializable;
import java.time.LocalDate;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;

/** A published figure, as the lead wrote it down. */
@Entity
class Claim {
    /** @param place in the lead's order, from 0 */
    @Embeddable
    record Key(StudyId studyId, int place) implements Serializable {}

    @EmbeddedId
    private Key key;

    private CandidateId candidateId;
    private String measure;
    private double figure;
    private boolean higherIsBetter;
    private String source;

    @Nullable
    private LocalDate asOf;

    @SuppressWarnings("NullAway.Init")
    protected Claim() {}

    static Claim of(StudyId study, int place, ClaimContent content) {
        Claim claim = new Claim();
        claim.key = new Key(study, place);
        claim.candidateId = content.candidateId();
        claim.measure = content.measure().strip();
        claim.figure = content.value();
        claim.higherIsBetter = content.higherIsBetter();
        claim.source = content.source().strip();
        claim.asOf = content.asOf();
        return claim;
    }

    ClaimContent content() {
        return new ClaimContent(candidateId, measure, figure, higherIsBetter, source, asOf);
    }
}
