package org.mossbank.server.run;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
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
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.prompt.PromptText;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
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
    private static final Duration FIRST_BACK_OFF = Duration.ofSeconds(2);
    private static final Duration LONGEST_BACK_OFF = Duration.ofMinutes(2);
    private static final Duration LONGEST_WAIT = Duration.ofMinutes(30);

    private final RunRepository runs;
    private final RunCellRepository cells;
    private final Prompts prompts;
    private final Candidates candidates;
    private final Answers answers;
    private final Sources sources;
    private final Snapshot snapshot;
    private final TransactionTemplate transactions;
    private final Clock clock;

    RunWork(
            RunRepository runs,
            RunCellRepository cells,
            Prompts prompts,
            Candidates candidates,
            Answers answers,
            Sources sources,
            Snapshot snapshot,
            TransactionTemplate transactions,
            Clock clock) {
        this.runs = runs;
        this.cells = cells;
        this.prompts = prompts;
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
            } else if (!canFollow(run, cell)) {
                cell.note("The answer or its follow-up is not there any more.");
                cell.done();
            } else if (underWay.getOrDefault(cell.candidateId(), 0L) < source.mostAtOnce()) {
                return claim(run, cell, source, server, now);
            }
        }
        return Optional.empty();
    }

    /** The lead may have removed the answer, or the prepared follow-up, since the first reply came. */
    private boolean canFollow(Run run, RunCell cell) {
        return cell.turn() == 0
                || cell.answerId() != null
                        && (cell.ownFollowUp() != null
                                || cell.turn()
                                        <= prompt(run, cell)
                                                .content()
                                                .followUps()
                                                .size());
    }

    private Optional<Claim> claim(Run run, RunCell cell, SourceContent source, UUID server, Instant now) {
        List<Turn> turns = turns(run, cell);
        long mostTokensIn = Sources.mostInputTokens(source, turns);
        BigDecimal mostCost = RunCosts.of(price(run, cell), mostTokensIn, source.mostOutputTokens())
                .orElse(BigDecimal.ZERO);
        long mostTokens = mostTokensIn + source.mostOutputTokens();
        RunCellRepository.Spending spending = cells.spending(run.id());
        if (!run.allows(
                spending.cost().add(spending.reservedCost()).add(mostCost),
                spending.tokens() + spending.reservedTokens() + mostTokens)) {
            if (cells.count(run.id(), RunCell.State.ASKING) == 0) {
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

    private CandidateContent.Price price(Run run, RunCell cell) {
        return candidates.ofStudy(run.studyId()).stream()
                .filter(c -> c.id().equals(cell.candidateId()))
                .findFirst()
                .map(CandidateView::content)
                .map(CandidateContent::price)
                .orElse(CandidateContent.Price.UNKNOWN);
    }

    /** What was asked and replied before, as the answer has it, then what is asked now. */
    private List<Turn> turns(Run run, RunCell cell) {
        PromptView prompt = prompt(run, cell);
        String first = PromptText.of(prompt.content());
        if (cell.turn() == 0) {
            return List.of(new Turn(first, null));
        }
        AnswerView answer = answers.one(Objects.requireNonNull(cell.answerId())).orElseThrow();
        List<Turn> turns = new ArrayList<>();
        turns.add(new Turn(first, answer.text()));
        answer.followUps().forEach(f -> turns.add(new Turn(f.asked(), f.reply())));
        turns.add(new Turn(followUp(prompt, cell), null));
        return turns;
    }

    private static String followUp(PromptView prompt, RunCell cell) {
        String own = cell.ownFollowUp();
        return own == null ? prompt.content().followUps().get(cell.turn() - 1) : own;
    }

    private PromptView prompt(Run run, RunCell cell) {
        return prompts.ofStudy(run.studyId()).stream()
                .filter(p -> p.id().equals(cell.promptId()))
                .findFirst()
                .orElseThrow();
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
        PromptView prompt = prompt(run, cell);
        AnswerView answer = cell.turn() == 0 || !canFollow(run, cell)
                ? null
                : answers.one(Objects.requireNonNull(cell.answerId())).orElse(null);
        return new Place(prompt.startingCode(), answer, answer == null ? "" : followUp(prompt, cell));
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
            cell.spendMore(RunCosts.of(price(run, cell), in, out).orElse(BigDecimal.ZERO), in + out);
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
                && waitOf(cell, reply).compareTo(LONGEST_WAIT) <= 0) {
            cell.waitUntil(clock.instant().plus(waitOf(cell, reply)));
        } else if (reply.free() && !reply.retry()) {
            cell.turnedAway();
        } else if (!canFollow(run, cell)) {
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

    /** As the service asks; else twice as long with every try. */
    private static Duration waitOf(RunCell cell, Reply reply) {
        Duration asked = reply.retryAfter();
        if (asked != null) {
            return asked;
        }
        Duration own = FIRST_BACK_OFF.multipliedBy(1L << Math.min(cell.tries() - 1, 10));
        return own.compareTo(LONGEST_BACK_OFF) > 0 ? LONGEST_BACK_OFF : own;
    }

    /** Where the service told no count, what was reserved counts: it cannot have been more. */
    private void spend(Run run, RunCell cell, Reply reply) {
        Long in = reply.inputTokens();
        Long out = reply.outputTokens();
        if (reply.free()) {
            cell.spend(BigDecimal.ZERO, 0);
        } else if (in != null && out != null) {
            cell.spend(RunCosts.of(price(run, cell), in, out).orElse(BigDecimal.ZERO), in + out);
        } else {
            cell.spend(cell.reservedCost(), cell.reservedTokens());
        }
    }

    private void answer(Run run, RunCell cell, Reply reply, Answers.Weighed weighed) {
        PromptView prompt = prompt(run, cell);
        Outcome outcome = Outcome.valueOf(reply.ending().name());
        Measures took = measures(run, cell, reply);
        if (cell.turn() == 0) {
            CandidateView candidate = candidates.ofStudy(run.studyId()).stream()
                    .filter(c -> c.id().equals(cell.candidateId()))
                    .findFirst()
                    .orElseThrow();
            Answers.Attempt attempt = new Answers.Attempt(
                    prompt, candidate, null, outcome, clean(reply.text()), List.of(), took, weighed.changed());
            AnswerView added =
                    answers.addAttempts(run.studyId(), List.of(attempt)).get(0);
            cell.answeredBy(added.id(), outcome);
        } else {
            UUID answer = Objects.requireNonNull(cell.answerId());
            cell.answeredBy(answer, outcome);
            answers.follow(answer, new FollowUp(followUp(prompt, cell), clean(reply.text())), outcome, took, weighed);
        }
        boolean more = cell.turn()
                < Math.min(run.followUps(), prompt.content().followUps().size());
        if (outcome == Outcome.COMPLETE && more && cell.ownFollowUp() == null) {
            cell.nextTurn();
        } else {
            cell.done();
        }
    }

    private Measures measures(Run run, RunCell cell, Reply reply) {
        boolean estimated = !reply.free() && (reply.inputTokens() == null || reply.outputTokens() == null);
        Long in = reply.inputTokens();
        Long out = reply.outputTokens();
        if (reply.free()) {
            // After a first reply nothing was added to what is known; before one, nothing is known.
            in = cell.turn() == 0 ? null : Long.valueOf(0);
            out = in;
        } else {
            in = in == null ? estimatedInput(run, cell) : in;
            out = out == null ? RunCosts.estimatedTokens(reply.text()) : out;
        }
        CandidateContent.Price price = price(run, cell);
        BigDecimal cost =
                in == null || out == null ? null : RunCosts.of(price, in, out).orElse(null);
        return new Measures(
                reply.firstOutputMs(),
                reply.totalMs(),
                in,
                out,
                cost,
                cost == null ? null : price.currency(),
                estimated,
                cell.tries());
    }

    private long estimatedInput(Run run, RunCell cell) {
        return turns(run, cell).stream()
                .mapToLong(t -> RunCosts.estimatedTokens(t.asked())
                        + (t.reply() == null ? 0 : RunCosts.estimatedTokens(t.reply())))
                .sum();
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
        if (cell.state() != RunCell.State.ASKING || !cell.isForsaken(now)) {
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
