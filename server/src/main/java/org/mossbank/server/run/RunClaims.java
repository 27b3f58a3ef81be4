package org.mossbank.server.run;

import java.math.BigDecimal;
import java.time.Clock;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.source.Sources;
import org.mossbank.server.source.Turn;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/**
 * Takes cells to ask from the database. A cell is claimed, with the most that it can cost, before anything is sent; so a
 * server that is killed leaves a trace of every request that may have been paid for, and none is sent twice. Those that can go
 * out together are claimed together, as most of what is read for them is the same.
 */
@Service
class RunClaims {
    /** How many groups are under way at once: near each other in time, yet nobody waits for the slowest alone. */
    private static final int GROUPS_AT_ONCE = 2;

    private static final int LOOKED_THROUGH = 200;

    private final RunRepository runs;
    private final RunCellRepository cells;
    private final RunSubject about;
    private final Sources sources;
    private final Clock clock;

    RunClaims(RunRepository runs, RunCellRepository cells, RunSubject about, Sources sources, Clock clock) {
        this.runs = runs;
        this.cells = cells;
        this.about = about;
        this.sources = sources;
        this.clock = clock;
    }

    /**
     * A request to send.
     *
     * @param code the starting code that it is about, text by path
     */
    record Claim(
            UUID runId, UUID cellId, SourceContent source, List<Turn> turns, int attempt, Map<String, String> code) {}

    /**
     * The next requests of a run that can be sent now, at most so many.
     *
     * @param lookedAt the versions of prompts in which nothing is held back; one that was changed since waits until it was looked at
     */
    @SystemOnly
    @Transactional
    public List<Claim> claim(UUID runId, UUID server, int most, Map<PromptId, Long> lookedAt) {
        Run run = runs.lock(runId).orElseThrow();
        if (run.state() != Run.State.RUNNING) {
            return List.of();
        }
        RunCellRepository.Standing standing = cells.standing(runId);
        if (standing.firstOpenGroup() == null) {
            run.finish();
            return List.of();
        }
        return new Claiming(run, server, standing, lookedAt).upTo(most);
    }

    /** What was found for a run when its claims began, and what they have changed of it. */
    private final class Claiming {
        private final Run run;
        private final UUID server;
        private final int beforeGroup;
        private final Instant now = clock.instant();
        private final Map<CandidateId, Long> underWay = new HashMap<>();
        private final Map<CandidateId, SourceContent> bySource;
        private BigDecimal cost;
        private long tokens;

        private final Map<PromptId, Long> lookedAt;

        private Claiming(Run run, UUID server, RunCellRepository.Standing standing, Map<PromptId, Long> lookedAt) {
            this.lookedAt = lookedAt;
            this.run = run;
            this.server = server;
            this.beforeGroup = Objects.requireNonNull(standing.firstOpenGroup()) + GROUPS_AT_ONCE;
            this.bySource = sources.ofStudy(run.studyId());
            cells.underWay().forEach(u -> underWay.put(u.candidateId(), u.requests()));
            this.cost = standing.cost().add(standing.reservedCost());
            this.tokens = standing.tokens() + standing.reservedTokens();
        }

        private List<Claim> upTo(int most) {
            List<Claim> claims = new ArrayList<>();
            for (RunCell cell : cells.ready(run.id(), now, Limit.of(LOOKED_THROUGH))) {
                if (claims.size() == most || cell.group() >= beforeGroup) {
                    break;
                }
                SourceContent source = bySource.get(cell.candidateId());
                if (source == null) {
                    cell.note("There is no source to ask any more.");
                    cell.turnedAway();
                } else if (!about.canFollow(cell)) {
                    cell.note("The answer or its follow-up is not there any more.");
                    cell.done();
                } else if (underWay.getOrDefault(cell.candidateId(), 0L) < source.mostAtOnce()
                        && !claim(cell, source, claims)) {
                    break;
                }
            }
            return claims;
        }

        /** Whether the budget allows it, and its prompt is the one that was looked at. */
        private boolean claim(RunCell cell, SourceContent source, List<Claim> claims) {
            Prompts.Sendable sendable = about.sendable(cell);
            if (!Objects.equals(lookedAt.get(cell.promptId()), sendable.version())) {
                return false;
            }
            PromptContent.Asked asked = sendable.asked();
            List<Turn> turns = about.turns(cell, asked);
            long mostTokensIn = Sources.mostInputTokens(source, turns);
            BigDecimal mostCost = RunCosts.of(about.price(cell), mostTokensIn, source.mostOutputTokens())
                    .orElse(BigDecimal.ZERO);
            long mostTokens = mostTokensIn + source.mostOutputTokens();
            if (!run.allows(cost.add(mostCost), tokens + mostTokens)) {
                if (claims.isEmpty() && cells.count(run.id(), CellStage.ASKING) == 0) {
                    run.pause("The next request might take more than the budget leaves.");
                }
                return false;
            }
            cost = cost.add(mostCost);
            tokens += mostTokens;
            underWay.merge(cell.candidateId(), 1L, Long::sum);
            cell.claim(server, now, now.plus(RunWork.LEASE), mostCost, mostTokens);
            claims.add(new Claim(run.id(), cell.id(), source, turns, cell.attempt(), asked.startingCode()));
            return true;
        }
    }
}
