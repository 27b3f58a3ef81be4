package org.mossbank.server.run;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.AnsweringModels;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.source.Reply;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Writes down what came of the requests that {@link RunClaims} gave out. */
@Service
class RunWork {
    /** A server that says nothing for so long is taken for dead. */
    static final Duration LEASE = Duration.ofSeconds(15);

    private static final int ALIKE_FAULTS = 3;
    private static final Duration LONGEST_WAIT = Duration.ofMinutes(30);

    private final RunRepository runs;
    private final RunCellRepository cells;
    private final RunSubject about;
    private final Answers answers;
    private final AnsweringModels models;
    private final Snapshot snapshot;
    private final TransactionTemplate transactions;
    private final Clock clock;

    RunWork(
            RunRepository runs,
            RunCellRepository cells,
            RunSubject about,
            Answers answers,
            AnsweringModels models,
            Snapshot snapshot,
            TransactionTemplate transactions,
            Clock clock) {
        this.runs = runs;
        this.cells = cells;
        this.about = about;
        this.answers = answers;
        this.models = models;
        this.snapshot = snapshot;
        this.transactions = transactions;
        this.clock = clock;
    }

    @SystemOnly
    @Transactional(readOnly = true)
    public List<UUID> going() {
        return runs.going();
    }

    /** Sends nothing more until somebody has looked. */
    @SystemOnly
    @Transactional
    public void hold(UUID runId, String reason) {
        Run run = lock(runId);
        if (run.state() == Run.State.RUNNING) {
            run.pause(reason);
        }
    }

    private Run lock(UUID runId) {
        return runs.lock(runId).orElseThrow();
    }

    private RunCell alone(UUID cellId) {
        return cells.lock(cellId).orElseThrow();
    }

    /**
     * Keeps what came so far, and the claim.
     *
     * @return whether to go on: not if the claim was lost, or the run is to be cut
     */
    @SystemOnly
    @Transactional
    public boolean keep(UUID cellId, UUID server, String text, @Nullable Long firstOutputMs) {
        RunCell cell = cells.lock(cellId).orElse(null);
        if (cell == null || !cell.isOwnedBy(server)) {
            return false;
        }
        cell.came(clean(text), firstOutputMs, clock.instant().plus(LEASE));
        return !runs.findById(cell.runId()).orElseThrow().isCut();
    }

    /** The same for a request of which what it is about is known. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public Answers.Weighed weigh(RunClaims.Claim claim, Reply reply) {
        return claim.turns().size() == 1
                ? answers.weigh(claim.code(), clean(reply.text()))
                : weigh(claim.cellId(), reply);
    }

    /** What a reply is written into. */
    private record Place(Map<String, String> code, @Nullable AnswerView answer, String asked) {}

    /** How much the answer changes with a reply in it; slow, so before a transaction begins. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public Answers.Weighed weigh(UUID cellId, Reply reply) {
        Place place = snapshot.of(() -> place(cellId));
        String text = clean(reply.text());
        return place.answer == null
                ? answers.weigh(place.code, text)
                : answers.weigh(place.code, place.answer, new FollowUp(place.asked, text));
    }

    private Place place(UUID cellId) {
        RunCell cell = cells.findById(cellId).orElseThrow();
        AnswerView answer = cell.turn() == 0 || !about.canFollow(cell)
                ? null
                : answers.one(Objects.requireNonNull(cell.answerId())).orElse(null);
        return new Place(about.code(cell), answer, answer == null ? "" : about.followUp(cell));
    }

    /** Writes down how a request ended. */
    @SystemOnly
    @Transactional
    public void finish(RunClaims.Claim claim, UUID server, Reply reply, Answers.Weighed weighed) {
        Run run = lock(claim.runId());
        RunCell cell = alone(claim.cellId());
        if (cell.isOwnedBy(server)) {
            pauseOnAnotherModel(run, cell, reply);
            write(run, cell, reply, weighed);
            pauseOnAlikeFaults(run, cell);
        } else if (!reply.free()) {
            keepLate(run, cell, reply);
        }
    }

    /**
     * One wrong field of a source fails every request alike: then the rest waits until somebody has looked. Whoever goes on all
     * the same is asked again after as many more.
     */
    private void pauseOnAlikeFaults(Run run, RunCell cell) {
        boolean failed = cell.state() == CellStage.TURNED_AWAY || cell.outcome() == Outcome.FAILED;
        if (!failed || cell.notes().isEmpty() || run.state() != Run.State.RUNNING) {
            return;
        }
        long alike = cells.alike(run.id(), cell.candidateId(), cell.notes());
        if (alike % ALIKE_FAULTS == 0
                && !cells.existsByRunIdAndCandidateIdAndOutcome(run.id(), cell.candidateId(), Outcome.COMPLETE)) {
            run.pause(
                    "%s failed %d times in the same way, and answered nothing so far. Try its source before you go on."
                            .formatted(about.candidate(cell).name(), alike));
        }
    }

    /** A service that put another version in place in the middle would have its answers counted as one candidate's. Asked once of each. */
    private void pauseOnAnotherModel(Run run, RunCell cell, Reply reply) {
        String model = reply.model();
        if (model == null || reply.free()) {
            return;
        }
        Optional<Set<String>> before = models.othersThan(model, run.studyId(), cell.candidateId());
        if (before.isEmpty()) {
            return;
        }
        String said = "%s says that %s answered, and before that %s."
                .formatted(about.candidate(cell).name(), model, String.join(", ", before.get()));
        cell.note(said);
        if (run.state() == Run.State.RUNNING) {
            run.pause(said + " Its answers are marked. Go on if they may stand for one candidate.");
        }
    }

    /** It was taken for lost and written down as such; what came all the same was paid for, and is kept beside. */
    private void keepLate(Run run, RunCell cell, Reply reply) {
        Long in = reply.inputTokens();
        Long out = reply.outputTokens();
        if (in != null && out != null) {
            cell.spending().more(RunCosts.of(about.price(cell), in, out).orElse(BigDecimal.ZERO), in + out);
        }
        cell.cameLate(
                clean(reply.text()),
                "A reply came after the cell was written down, and is kept beside it: %s, %,d characters."
                        .formatted(
                                reply.ending().name().toLowerCase(Locale.ROOT).replace('_', ' '),
                                reply.text().length()));
    }

    private void write(Run run, RunCell cell, Reply reply, Answers.Weighed weighed) {
        Spent spent = spent(cell, reply);
        if (reply.retry()
                && cell.tries() < about.tries(run, cell)
                && BackOff.before(cell.tries(), reply).compareTo(LONGEST_WAIT) <= 0) {
            cell.waitUntil(clock.instant().plus(BackOff.before(cell.tries(), reply)));
        } else if (reply.free() && !reply.retry()) {
            cell.turnedAway();
        } else if (!about.canFollow(cell)) {
            cell.note("The answer or its follow-up is not there any more.");
            cell.done();
        } else {
            answer(run, cell, reply, weighed);
        }
        cell.spend(spent.cost, spent.tokens);
        if (!reply.reason().isEmpty()) {
            cell.note(reply.reason());
        }
    }

    private record Spent(BigDecimal cost, long tokens) {}

    /** Where the service told no count, what was reserved counts: it cannot have been more. */
    private Spent spent(RunCell cell, Reply reply) {
        Long in = reply.inputTokens();
        Long out = reply.outputTokens();
        if (reply.free()) {
            return new Spent(BigDecimal.ZERO, 0);
        } else if (in != null && out != null) {
            return new Spent(RunCosts.of(about.price(cell), in, out).orElse(BigDecimal.ZERO), in + out);
        } else {
            return new Spent(cell.spending().reservedCost(), cell.spending().reservedTokens());
        }
    }

    private void answer(Run run, RunCell cell, Reply reply, Answers.Weighed weighed) {
        Prompts.Outline prompt = about.prompt(cell);
        Outcome outcome = Outcome.valueOf(reply.ending().name());
        Measures took = about.measures(cell, reply);
        if (cell.turn() == 0) {
            Candidates.Head candidate = about.candidate(cell);
            Answers.Attempt attempt = new Answers.Attempt(
                    new Answers.Named<>(prompt.id(), prompt.key()),
                    new Answers.Named<>(candidate.id(), candidate.key()),
                    null,
                    outcome,
                    clean(reply.text()),
                    List.of(),
                    took,
                    weighed.changed());
            AnswerView added =
                    answers.addAttempts(run.studyId(), List.of(attempt)).get(0);
            cell.answeredBy(added.id(), outcome);
        } else {
            AnswerId answer = Objects.requireNonNull(cell.answerId());
            cell.answeredBy(answer, outcome);
            answers.follow(answer, new FollowUp(about.followUp(cell), clean(reply.text())), outcome, took, weighed);
        }
        boolean more =
                cell.turn() < Math.min(run.followUps(), prompt.followUps().size());
        if (outcome == Outcome.COMPLETE && more && cell.ownFollowUp() == null) {
            cell.nextTurn();
        } else {
            cell.done();
        }
    }

    private static String clean(String text) {
        return text.replace("\0", "\uFFFD");
    }

    /** Cells that a server which is gone was asking. */
    @SystemOnly
    @Transactional(readOnly = true)
    public List<UUID> forsaken() {
        return cells.forsaken(clock.instant());
    }

    /** What was being asked is kept with what had come, and not asked again, as it may have been paid for. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public void recover(UUID id) {
        Optional<Reply> reply = snapshot.of(() -> cells.findById(id).flatMap(this::forsakenReply));
        reply.ifPresent(r -> {
            Answers.Weighed weighed = weigh(id, r);
            transactions.executeWithoutResult(status -> recover(id, weighed));
        });
    }

    private void recover(UUID id, Answers.Weighed weighed) {
        Run run = lock(cells.runOf(id).orElseThrow());
        RunCell cell = alone(id);
        forsakenReply(cell).ifPresent(reply -> write(run, cell, reply, weighed));
    }

    /** What a forsaken cell had come to; empty if somebody is still at it. */
    private Optional<Reply> forsakenReply(RunCell cell) {
        Instant now = clock.instant();
        if (cell.state() != CellStage.ASKING || !cell.isForsaken(now)) {
            return Optional.empty();
        }
        String came = cell.partial();
        Instant asked = Objects.requireNonNull(cell.askedAt());
        return Optional.of(new Reply(
                came.isEmpty() ? Reply.Ending.FAILED : Reply.Ending.INCOMPLETE,
                came,
                cell.firstOutputMs(),
                Duration.between(asked, now).toMillis(),
                null,
                null,
                null,
                "The server that asked was not heard of for "
                        + cell.silentFor(now).toSeconds() + " seconds, so it was given up.",
                false,
                false,
                null));
    }
}
