package org.mossbank.server.run;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.shared.Snapshot;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.source.Reply;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.source.Sources;
import org.mossbank.server.source.Turn;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/**
 * Takes cells to ask from the database, and writes down what came. A cell is claimed, with the most that it can cost, before
 * anything is sent; so a server that is killed leaves a trace of every request that may have been paid for, and none is sent
 * twice.
 */
@Service
class RunWork {
    /** A server that says nothing for so long is taken for dead. */
    static final Duration LEASE = Duration.ofSeconds(15);

    /** How many groups are under way at once: near each other in time, yet nobody waits for the slowest alone. */
    private static final int GROUPS_AT_ONCE = 2;

    private static final int LOOKED_THROUGH = 200;
    private static final Duration LONGEST_WAIT = Duration.ofMinutes(30);

    private final RunRepository runs;
    private final RunCellRepository cells;
    private final RunSubject about;
    private final Candidates candidates;
    private final Answers answers;
    private final Sources sources;
    private final Snapshot snapshot;
    private final TransactionTemplate transactions;
    private final Clock clock;

    RunWork(
            RunRepository runs,
            RunCellRepository cells,
            RunSubject about,
            Candidates candidates,
            Answers answers,
            Sources sources,
            Snapshot snapshot,
            TransactionTemplate transactions,
            Clock clock) {
        this.runs = runs;
        this.cells = cells;
        this.about = about;
        this.candidates = candidates;
        this.answers = answers;
        this.sources = sources;
        this.snapshot = snapshot;
        this.transactions = transactions;
        this.clock = clock;
    }

    /** A request to send. */
    record Claim(UUID cellId, SourceContent source, List<Turn> turns, int attempt) {}

    @SystemOnly
    @Transactional(readOnly = true)
    public List<UUID> going() {
        return runs.going();
    }

    /** The next request of a run, if there is one now. */
    @SystemOnly
    @Transactional
    public Optional<Claim> claim(UUID runId, UUID server) {
        Run run = lock(runId);
        if (run.state() != Run.State.RUNNING) {
            return Optional.empty();
        }
        Integer open = cells.firstOpenGroup(runId);
        if (open == null) {
            run.finish();
            return Optional.empty();
        }
        Instant now = clock.instant();
        Map<UUID, Long> underWay = new HashMap<>();
        cells.underWay().forEach(u -> underWay.put(u.candidateId(), u.requests()));
        Map<UUID, SourceContent> bySource = sources.ofStudy(run.studyId());
        for (RunCell cell : cells.ready(runId, now, Limit.of(LOOKED_THROUGH))) {
            SourceContent source = bySource.get(cell.candidateId());
            if (cell.group() >= open + GROUPS_AT_ONCE) {
                return Optional.empty();
            }
            if (source == null) {
                cell.note("There is no source to ask any more.");
                cell.turnedAway();
            } else if (!about.canFollow(cell)) {
                cell.note("The answer or its follow-up is not there any more.");
                cell.done();
            } else if (underWay.getOrDefault(cell.candidateId(), 0L) < source.mostAtOnce()) {
                return claim(run, cell, source, server, now);
            }
        }
        return Optional.empty();
    }

    private Optional<Claim> claim(Run run, RunCell cell, SourceContent source, UUID server, Instant now) {
        List<Turn> turns = about.turns(cell);
        long mostTokensIn = Sources.mostInputTokens(source, turns);
        BigDecimal mostCost = RunCosts.of(about.price(cell), mostTokensIn, source.mostOutputTokens())
                .orElse(BigDecimal.ZERO);
        long mostTokens = mostTokensIn + source.mostOutputTokens();
        RunCellRepository.Spending spending = cells.spending(run.id());
        if (!run.allows(
                spending.cost().add(spending.reservedCost()).add(mostCost),
                spending.tokens() + spending.reservedTokens() + mostTokens)) {
            if (cells.count(run.id(), CellStage.ASKING) == 0) {
                run.pause("The next request might take more than the budget leaves.");
            }
            return Optional.empty();
        }
        cell.claim(server, now, now.plus(LEASE), mostCost, mostTokens);
        return Optional.of(new Claim(cell.id(), source, turns, cell.attempt()));
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
        Run run = runs.findById(cell.runId()).orElseThrow();
        PromptView prompt = about.prompt(cell);
        AnswerView answer = cell.turn() == 0 || !about.canFollow(cell)
                ? null
                : answers.one(Objects.requireNonNull(cell.answerId())).orElse(null);
        return new Place(prompt.startingCode(), answer, answer == null ? "" : RunSubject.followUp(prompt, cell));
    }

    /** Writes down how a request ended. */
    @SystemOnly
    @Transactional
    public void finish(UUID cellId, UUID server, Reply reply, Answers.Weighed weighed) {
        Run run = lock(cells.runOf(cellId).orElseThrow());
        RunCell cell = alone(cellId);
        if (cell.isOwnedBy(server)) {
            write(run, cell, reply, weighed);
        } else if (!reply.free()) {
            keepLate(run, cell, reply);
        }
    }

    /** It was taken for lost and written down as such; what came all the same was paid for, and is kept beside. */
    private void keepLate(Run run, RunCell cell, Reply reply) {
        Long in = reply.inputTokens();
        Long out = reply.outputTokens();
        if (in != null && out != null) {
            cell.spendMore(RunCosts.of(about.price(cell), in, out).orElse(BigDecimal.ZERO), in + out);
        }
        cell.cameLate(
                clean(reply.text()),
                "A reply came after the cell was written down, and is kept beside it: %s, %,d characters."
                        .formatted(
                                reply.ending().name().toLowerCase(Locale.ROOT).replace('_', ' '),
                                reply.text().length()));
    }

    private void write(Run run, RunCell cell, Reply reply, Answers.Weighed weighed) {
        spend(run, cell, reply);
        if (!reply.reason().isEmpty()) {
            cell.note(reply.reason());
        }
        if (reply.retry()
                && cell.tries() < tries(run, cell)
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
    }

    private int tries(Run run, RunCell cell) {
        return sources.of(run.studyId(), cell.candidateId())
                .map(SourceContent::mostTries)
                .orElse(1);
    }

    /** Where the service told no count, what was reserved counts: it cannot have been more. */
    private void spend(Run run, RunCell cell, Reply reply) {
        Long in = reply.inputTokens();
        Long out = reply.outputTokens();
        if (reply.free()) {
            cell.spend(BigDecimal.ZERO, 0);
        } else if (in != null && out != null) {
            cell.spend(RunCosts.of(about.price(cell), in, out).orElse(BigDecimal.ZERO), in + out);
        } else {
            cell.spend(cell.reservedCost(), cell.reservedTokens());
        }
    }

    private void answer(Run run, RunCell cell, Reply reply, Answers.Weighed weighed) {
        PromptView prompt = about.prompt(cell);
        Outcome outcome = Outcome.valueOf(reply.ending().name());
        Measures took = about.measures(cell, reply);
        if (cell.turn() == 0) {
            CandidateView candidate = candidates.one(cell.candidateId()).orElseThrow();
            Answers.Attempt attempt = new Answers.Attempt(
                    prompt, candidate, null, outcome, clean(reply.text()), List.of(), took, weighed.changed());
            AnswerView added =
                    answers.addAttempts(run.studyId(), List.of(attempt)).get(0);
            cell.answeredBy(added.id(), outcome);
        } else {
            UUID answer = Objects.requireNonNull(cell.answerId());
            cell.answeredBy(answer, outcome);
            answers.follow(
                    answer,
                    new FollowUp(RunSubject.followUp(prompt, cell), clean(reply.text())),
                    outcome,
                    took,
                    weighed);
        }
        boolean more = cell.turn()
                < Math.min(run.followUps(), prompt.content().followUps().size());
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
                "The server that asked was not heard of for "
                        + cell.silentFor(now).toSeconds() + " seconds, so it was given up.",
                false,
                false,
                null));
    }
}
