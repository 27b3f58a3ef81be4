package org.mossbank.server.rubric;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;

/** Another wording of an anchor, for the rubric's next version. */
@Entity
class AnchorProposal {
    /** What became of it. */
    enum State {
        WAITING,
        TAKEN,
        DECLINED
    }

    /** Who decided on it, and when; with the version that it came into, if it was taken. */
    record Decision(String by, Instant at, @Nullable Integer version) {}

    /**
     * What is proposed.
     *
     * @param criterion its key
     * @param by        a name
     */
    record Proposed(String criterion, KindId kindId, int level, String words, String why, String by, Instant at) {}

    @Id
    private UUID id;

    private StudyId studyId;
    private String criterionKey;
    private KindId kindId;
    private int level;
    private String words;
    private String why;
    private String proposedBy;
    private Instant proposedAt;

    @Enumerated(EnumType.STRING)
    private State state;

    @Nullable
    private String decidedBy;

    @Nullable
    private Instant decidedAt;

    @Nullable
    private Integer rubricVersion;

    @SuppressWarnings("NullAway.Init")
    protected AnchorProposal() {}

    /** @param id as the client made it, so that what is sent twice is proposed once */
    static AnchorProposal of(UUID id, StudyId study, Proposed proposed) {
        AnchorProposal made = new AnchorProposal();
        made.id = id;
        made.studyId = study;
        made.criterionKey = proposed.criterion();
        made.kindId = proposed.kindId();
        made.level = proposed.level();
        made.words = proposed.words();
        made.why = proposed.why();
        made.proposedBy = proposed.by();
        made.proposedAt = proposed.at();
        made.state = State.WAITING;
        return made;
    }

    void decide(Decision decision) {
        state = decision.version() == null ? State.DECLINED : State.TAKEN;
        decidedBy = decision.by();
        decidedAt = decision.at();
        rubricVersion = decision.version();
    }

    UUID id() {
        return id;
    }

    StudyId studyId() {
        return studyId;
    }

    State state() {
        return state;
    }

    Proposed proposed() {
        return new Proposed(criterionKey, kindId, level, words, why, proposedBy, proposedAt);
    }

    @Nullable
    Decision decision() {
        return decidedBy == null || decidedAt == null ? null : new Decision(decidedBy, decidedAt, rubricVersion);
    }
}
