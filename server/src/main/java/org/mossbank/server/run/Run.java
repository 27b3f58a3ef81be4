package org.mossbank.server.run;

import jakarta.persistence.Column;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.UUID;
import org.hibernate.annotations.JdbcTypeCode;
import org.hibernate.type.SqlTypes;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;

@Entity
class Run {
    /** Whether more is asked. */
    enum State {
        RUNNING,
        PAUSED,
        FINISHED
    }

    @Id
    private UUID id;

    private StudyId studyId;
    private String key;
    private String startedBy;
    private Instant startedAt;
    private int attempts;
    private int followUps;

    @Nullable
    @Column(precision = 14, scale = 6)
    private BigDecimal budgetCost;

    @Nullable
    private Long budgetTokens;

    @Nullable
    @JdbcTypeCode(SqlTypes.CHAR)
    @Column(length = 3)
    private String currency;

    @Enumerated(EnumType.STRING)
    private State state;

    private String reason;
    private boolean cut;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected Run() {}

    static Run of(StudyId studyId, Runs.RunHead head) {
        Run run = new Run();
        run.id = UUID.randomUUID();
        run.studyId = studyId;
        run.key = head.key();
        run.startedBy = head.startedBy();
        run.startedAt = head.startedAt();
        run.attempts = head.attempts();
        run.followUps = head.followUps();
        run.budgetCost = head.budgetCost();
        run.budgetTokens = head.budgetTokens();
        run.currency = head.currency();
        run.state = head.finished() ? State.FINISHED : State.PAUSED;
        run.reason = head.reason();
        return run;
    }

    void goOn() {
        state = State.RUNNING;
        reason = "";
        cut = false;
    }

    void pause(String why) {
        state = State.PAUSED;
        reason = why;
    }

    /** What is under way ends too. */
    void cut(String why) {
        pause(why);
        cut = true;
    }

    void finish() {
        state = State.FINISHED;
        reason = "";
    }

    void spendAtMost(@Nullable BigDecimal cost, @Nullable Long tokens) {
        budgetCost = cost;
        budgetTokens = tokens;
    }

    boolean allows(BigDecimal cost, long tokens) {
        return (budgetCost == null || cost.compareTo(budgetCost) <= 0)
                && (budgetTokens == null || tokens <= budgetTokens);
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

    String reason() {
        return reason;
    }

    int followUps() {
        return followUps;
    }

    boolean isCut() {
        return cut;
    }

    Runs.RunHead head() {
        return new Runs.RunHead(
                key,
                startedBy,
                startedAt,
                attempts,
                followUps,
                RunCosts.plain(budgetCost),
                budgetTokens,
                currency,
                state == State.FINISHED,
                reason);
    }
}
