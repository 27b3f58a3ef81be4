package org.mossbank.server.grading.sheet;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
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

    public static Round of(StudyId studyId, Grading.NewRound start) {
        Round round = new Round();
        round.studyId = studyId;
        round.openedAt = start.openedAt();
        round.closedAt = start.closedAt();
        round.namesOpenedAt = start.namesOpenedAt() == null ? start.closedAt() : start.namesOpenedAt();
        round.ratersAnAnswer = start.ratersAnAnswer();
        round.repeatShare = start.repeatShare();
        round.leadWasBlind = start.leadWasBlind();
        return round;
    }

    public Grading.RoundState state() {
        return new Grading.RoundState(
                openedAt, closedAt, namesOpenedAt, revision, ratersAnAnswer, repeatShare, leadWasBlind);
    }

    public boolean isClosed() {
        return closedAt != null;
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
