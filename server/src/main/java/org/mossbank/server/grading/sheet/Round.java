package org.mossbank.server.grading.sheet;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;

/** The span in which raters grade. Every change locks it, so that none slips past its close. */
@Entity
public class Round {
    @Id
    private StudyId studyId;

    /** Absent while raters only calibrate. */
    @Nullable
    private Instant openedAt;

    @Nullable
    private Instant closedAt;

    @Nullable
    private Instant namesOpenedAt;

    private long revision;

    @Nullable
    private Integer ratersAnAnswer;

    @Nullable
    private Double repeatShare;

    private boolean leadWasBlind;

    @SuppressWarnings("NullAway.Init")
    protected Round() {}

    /** One that is not opened: raters calibrate. */
    public StudyId studyId() {
        return studyId;
    }

    public static Round before(StudyId studyId) {
        Round round = new Round();
        round.studyId = studyId;
        return round;
    }

    public void open(Grading.NewRound start) {
        openedAt = start.openedAt();
        closedAt = start.closedAt();
        namesOpenedAt = start.namesOpenedAt() == null ? start.closedAt() : start.namesOpenedAt();
        ratersAnAnswer = start.ratersAnAnswer();
        repeatShare = start.repeatShare();
        leadWasBlind = start.leadWasBlind();
        revision++;
    }

    public boolean isOpened() {
        return openedAt != null;
    }

    /** Empty before it is opened. */
    public Optional<Grading.RoundState> state() {
        return Optional.ofNullable(openedAt)
                .map(at -> new Grading.RoundState(
                        at, closedAt, namesOpenedAt, revision, ratersAnAnswer, repeatShare, leadWasBlind));
    }

    public boolean isClosed() {
        return closedAt != null;
    }

    /** Empty while it is not closed. */
    public Optional<Instant> closedAt() {
        return Optional.ofNullable(closedAt);
    }

    public void refuseIfClosed() {
        if (isClosed()) {
            throw new Problem(
                    ProblemType.ROUND_CLOSED,
                    "The lead has closed the round. What counts stays as it is until it is opened again with a reason.");
        }
    }

    public void close(Instant now) {
        if (closedAt == null) {
            closedAt = now;
            if (namesOpenedAt == null) {
                namesOpenedAt = now;
            }
            revision++;
        }
    }

    /** Raters grade on; what they saw meanwhile stays seen. */
    public void reopen() {
        closedAt = null;
        revision++;
    }

    /** What is sent in has changed. */
    public void advance() {
        revision++;
    }

    public long revision() {
        return revision;
    }
}
