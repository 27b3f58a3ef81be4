package org.mossbank.server.run;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import jakarta.persistence.Version;
import java.math.BigDecimal;
import java.time.Duration;
import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/** One prompt for one candidate, once. */
@Entity
class RunCell {
    @Id
    private UUID id;

    private UUID runId;
    private int place;
    private int groupNo;
    private PromptId promptId;
    private CandidateId candidateId;
    private int attempt;

    @Enumerated(EnumType.STRING)
    private CellStage state;

    @Nullable
    private String ownFollowUp;

    private int turn;
    private int tries;

    @Nullable
    private Instant notBefore;

    @Nullable
    private UUID owner;

    @Nullable
    private Instant leaseUntil;

    @Nullable
    private Instant askedAt;

    @Nullable
    private Long firstOutputMs;

    private String partial;

    private RunSpending spending;
    private String notes;

    @Nullable
    private String lateReply;

    @Nullable
    @Enumerated(EnumType.STRING)
    private Outcome outcome;

    @Nullable
    private AnswerId answerId;

    @Version
    private long version;

    @SuppressWarnings("NullAway.Init")
    protected RunCell() {}

    static RunCell of(UUID runId, RunPlan.Cell planned, int place) {
        RunCell cell = new RunCell();
        cell.id = UUID.randomUUID();
        cell.runId = runId;
        cell.place = place;
        cell.groupNo = planned.group();
        cell.promptId = planned.promptId();
        cell.candidateId = planned.candidateId();
        cell.attempt = planned.attempt();
        cell.state = CellStage.WAITING;
        cell.partial = "";
        cell.notes = "";
        cell.spending = RunSpending.of(BigDecimal.ZERO, 0);
        return cell;
    }

    /** One more turn of an answer that is there. */
    static RunCell following(UUID runId, AnswerView answer, String asked, int place) {
        RunCell cell =
                of(runId, new RunPlan.Cell(place, answer.promptId(), answer.candidateId(), answer.attempt()), place);
        cell.turn = answer.followUps().size() + 1;
        cell.answeredBy(answer.id(), answer.outcome());
        cell.ownFollowUp = asked;
        return cell;
    }

    /** As an archive has it. */
    static RunCell of(UUID runId, Runs.CellRecord record, @Nullable Outcome outcome, int place) {
        RunCell cell = of(
                runId,
                new RunPlan.Cell(record.group(), record.promptId(), record.candidateId(), record.attempt()),
                place);
        cell.state = CellStage.valueOf(record.state().name());
        cell.ownFollowUp = record.ownFollowUp();
        cell.turn = record.turn();
        cell.tries = record.tries();
        cell.spending = RunSpending.of(record.spentCost(), record.spentTokens());
        cell.notes = record.notes();
        cell.lateReply = record.lateReply();
        cell.answerId = record.answerId();
        cell.outcome = outcome;
        return cell;
    }

    /** Before anything is sent, so that nothing is sent that is not known of. */
    void claim(UUID server, Instant now, Instant until, BigDecimal mostCost, long mostTokens) {
        state = CellStage.ASKING;
        owner = server;
        leaseUntil = until;
        askedAt = now;
        notBefore = null;
        tries++;
        firstOutputMs = null;
        partial = "";
        spending.reserve(mostCost, mostTokens);
    }

    void came(String text, @Nullable Long firstMs, Instant until) {
        partial = text;
        firstOutputMs = firstMs;
        leaseUntil = until;
    }

    /** What one request took, once it has ended. */
    void spend(BigDecimal cost, long tokens) {
        spending.more(cost, tokens);
        spending.release();
    }

    /** What came when the cell was written down already; of several, all. */
    void cameLate(String text, String how) {
        lateReply = lateReply == null ? text : lateReply + "\n\n" + text;
        note(how);
    }

    @Nullable
    String lateReply() {
        return lateReply;
    }

    void note(String line) {
        notes = notes.isEmpty() ? line : notes + "\n" + line;
    }

    /** Once more, not before a time. */
    void waitUntil(Instant time) {
        let(CellStage.WAITING);
        notBefore = time;
    }

    void nextTurn() {
        let(CellStage.WAITING);
        turn++;
        tries = 0;
    }

    void done() {
        let(CellStage.DONE);
    }

    void turnedAway() {
        let(CellStage.TURNED_AWAY);
    }

    /** Whether the first reply itself failed, so that there is nothing to follow up. */
    boolean isFailedAtFirst() {
        return state == CellStage.DONE && turn == 0 && outcome == Outcome.FAILED;
    }

    /** Waits to be asked once more, with all that is known of its tries; returns the answer that it had. */
    @Nullable
    AnswerId forgetAnswer() {
        AnswerId before = answerId;
        let(CellStage.WAITING);
        note("It failed, and was asked again.");
        outcome = null;
        answerId = null;
        return before;
    }

    void again() {
        let(CellStage.WAITING);
        tries = 0;
    }

    private void let(CellStage next) {
        state = next;
        owner = null;
        leaseUntil = null;
        notBefore = null;
        partial = "";
        spending.release();
    }

    void answeredBy(AnswerId answer, Outcome how) {
        answerId = answer;
        outcome = how;
    }

    boolean isOwnedBy(UUID server) {
        return state == CellStage.ASKING && server.equals(owner);
    }

    /** Whether more of an answer is to come. */
    /** The answer that it is to become a part of; empty where there is none yet, and once it is done. */
    Optional<AnswerId> awaited() {
        return state == CellStage.WAITING || state == CellStage.ASKING
                ? Optional.ofNullable(answerId)
                : Optional.empty();
    }

    /** Since its server last said something. */
    Duration silentFor(Instant now) {
        return leaseUntil == null ? Duration.ZERO : Duration.between(leaseUntil.minus(RunWork.LEASE), now);
    }

    boolean isForsaken(Instant now) {
        return leaseUntil != null && leaseUntil.isBefore(now);
    }

    UUID id() {
        return id;
    }

    UUID runId() {
        return runId;
    }

    int group() {
        return groupNo;
    }

    PromptId promptId() {
        return promptId;
    }

    CandidateId candidateId() {
        return candidateId;
    }

    CellStage state() {
        return state;
    }

    int attempt() {
        return attempt;
    }

    @Nullable
    String ownFollowUp() {
        return ownFollowUp;
    }

    int turn() {
        return turn;
    }

    int tries() {
        return tries;
    }

    @Nullable
    AnswerId answerId() {
        return answerId;
    }

    RunSpending spending() {
        return spending;
    }

    @Nullable
    Outcome outcome() {
        return outcome;
    }

    String partial() {
        return partial;
    }

    @Nullable
    Long firstOutputMs() {
        return firstOutputMs;
    }

    @Nullable
    Instant askedAt() {
        return askedAt;
    }

    String notes() {
        return notes;
    }

    RunView.CellView view() {
        boolean asking = state == CellStage.ASKING;
        return new RunView.CellView(
                place,
                promptId,
                candidateId,
                attempt,
                state,
                turn,
                tries,
                asking ? askedAt : null,
                asking ? firstOutputMs : null,
                asking ? RunCosts.estimatedTokens(partial) : null,
                notBefore,
                notes.isEmpty() ? null : notes,
                lateReply != null,
                outcome,
                answerId);
    }

    Runs.CellRecord toRecord() {
        return new Runs.CellRecord(
                groupNo,
                promptId,
                candidateId,
                attempt,
                state == CellStage.ASKING ? CellState.WAITING : CellState.valueOf(state.name()),
                ownFollowUp,
                turn,
                tries,
                spending.cost(),
                spending.tokens(),
                notes,
                lateReply,
                answerId);
    }
}
