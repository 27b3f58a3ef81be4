package org.mossbank.server.run;

import jakarta.persistence.LockModeType;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface RunCellRepository extends JpaRepository<RunCell, UUID> {
    /** Alone, as what came so far and how it ended may be written at the same moment. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select c from RunCell c where c.id = :cell")
    Optional<RunCell> lock(UUID cell);

    /** Without reading the cell itself, which is to be locked after its run. */
    @Query("select c.runId from RunCell c where c.id = :cell")
    Optional<UUID> runOf(UUID cell);

    Optional<RunCell> findByRunIdAndPlace(UUID run, int place);

    @Query("select c from RunCell c where c.runId = :run order by c.place")
    List<RunCell> ofRun(UUID run);

    @Query("select c from RunCell c where c.runId = :run and c.state = org.mossbank.server.run.CellStage.WAITING "
            + "and (c.notBefore is null or c.notBefore <= :now) order by c.place")
    List<RunCell> ready(UUID run, Instant now, Limit limit);

    /** A prompt that a run is about. */
    record About(PromptId promptId) {}

    /** The prompts that a run has still to ask about. */
    @Query("select distinct new org.mossbank.server.run.RunCellRepository$About(c.promptId) from RunCell c"
            + " where c.runId = :run and c.state = org.mossbank.server.run.CellStage.WAITING")
    List<About> waitingPrompts(UUID run);

    /** Those that a run is about. */
    @Query("select distinct new org.mossbank.server.run.RunCellRepository$About(c.promptId) from RunCell c"
            + " where c.runId = :run")
    List<About> prompts(UUID run);

    /** Requests under way to a candidate. */
    record UnderWay(CandidateId candidateId, long requests) {}

    @Query("select c.candidateId as candidateId, count(c) as requests from RunCell c "
            + "where c.state = org.mossbank.server.run.CellStage.ASKING group by c.candidateId")
    List<UnderWay> underWay();

    /**
     * What a run has spent, what it may still spend on what is under way, and where it goes on.
     *
     * @param firstOpenGroup in which something is to be done; absent if nothing is
     */
    record Standing(
            BigDecimal cost,
            long tokens,
            BigDecimal reservedCost,
            long reservedTokens,
            @Nullable Integer firstOpenGroup) {}

    @Query("select coalesce(sum(c.spending.spentCost), 0) as cost, coalesce(sum(c.spending.spentTokens), 0) as tokens, "
            + "coalesce(sum(c.spending.reservedCost), 0) as reservedCost, coalesce(sum(c.spending.reservedTokens), 0) as reservedTokens, "
            + "min(case when c.state in (org.mossbank.server.run.CellStage.WAITING, "
            + "org.mossbank.server.run.CellStage.ASKING) then c.groupNo end) as firstOpenGroup "
            + "from RunCell c where c.runId = :run")
    Standing standing(UUID run);

    @Query("select count(c) from RunCell c where c.runId = :run and c.state = :state")
    long count(UUID run, CellStage state);

    @Query(
            "select c.id from RunCell c where c.state = org.mossbank.server.run.CellStage.ASKING and c.leaseUntil < :now")
    List<UUID> forsaken(Instant now);

    /** Cells of a candidate in a run of which nothing came, with the same words. */
    @Query("select count(c) from RunCell c where c.runId = :run and c.candidateId = :candidate and c.notes = :notes "
            + "and (c.state = org.mossbank.server.run.CellStage.TURNED_AWAY "
            + "or c.outcome = org.mossbank.server.answer.Outcome.FAILED)")
    long alike(UUID run, CandidateId candidate, String notes);

    boolean existsByRunIdAndCandidateIdAndOutcome(UUID run, CandidateId candidate, Outcome outcome);

    boolean existsByPromptId(PromptId prompt);

    boolean existsByCandidateId(CandidateId candidate);
}
