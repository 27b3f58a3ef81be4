package org.mossbank.server.grading.sheet;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;

/** One rater's page for one prompt. */
@Entity
public class Sheet {
    @Id
    private SheetId id;

    private StudyId studyId;
    private PromptId promptId;
    private AccountId raterId;
    private int place;
    private boolean repeat;

    @Nullable
    private Integer rubricVersion;

    @Nullable
    private Instant sentAt;

    @Nullable
    private Instant withdrawnAt;

    @Nullable
    private String withdrawnReason;

    @SuppressWarnings("NullAway.Init")
    protected Sheet() {}

    public static Sheet of(StudyId studyId, Grading.SheetRecord start) {
        Sheet sheet = new Sheet();
        // Random, so that ids carry no order of entry.
        sheet.id = SheetId.random();
        sheet.studyId = studyId;
        sheet.promptId = start.promptId();
        sheet.raterId = start.raterId();
        sheet.place = start.place();
        sheet.repeat = start.repeat();
        sheet.rubricVersion = start.rubricVersion();
        sheet.sentAt = start.sentAt();
        sheet.withdrawnAt = start.withdrawn() == null ? null : start.withdrawn().at();
        sheet.withdrawnReason =
                start.withdrawn() == null ? null : start.withdrawn().reason();
        return sheet;
    }

    public void send(Instant now) {
        sentAt = now;
    }

    public void takeBack() {
        sentAt = null;
    }

    /** Its grades stay, and count nowhere. */
    public void withdraw(String reason, Instant now) {
        withdrawnAt = now;
        withdrawnReason = reason;
    }

    public void giveBack() {
        withdrawnAt = null;
        withdrawnReason = null;
    }

    public void refuseIfWithdrawn() {
        if (withdrawnAt != null) {
            throw new Problem(ProblemType.SHEET_WITHDRAWN, "The lead has withdrawn this sheet: " + withdrawnReason);
        }
    }

    public boolean isWithdrawn() {
        return withdrawnAt != null;
    }

    /** When and why it was withdrawn, if it was. */
    public Grading.@Nullable Withdrawn withdrawn() {
        return withdrawnAt == null || withdrawnReason == null
                ? null
                : new Grading.Withdrawn(withdrawnAt, withdrawnReason);
    }

    public SheetId id() {
        return id;
    }

    public StudyId studyId() {
        return studyId;
    }

    public PromptId promptId() {
        return promptId;
    }

    public AccountId raterId() {
        return raterId;
    }

    public int place() {
        return place;
    }

    /** Whether it comes a second time; its rater is not told. */
    public boolean isRepeat() {
        return repeat;
    }

    /** The version of the rubric that it is graded by; empty for the one in use. */
    public Optional<Integer> rubricVersion() {
        return Optional.ofNullable(rubricVersion);
    }

    public boolean isSent() {
        return sentAt != null;
    }

    public Optional<Instant> sentAt() {
        return Optional.ofNullable(sentAt);
    }
}
