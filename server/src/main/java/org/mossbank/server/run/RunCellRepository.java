package org.mossbank.server.run;

import jakarta.persistence.LockModeType;
import java.math.BigDecimal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
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

    /** Requests under way to a candidate. */
    record UnderWay(UUID candidateId, long requests) {}

    @Query("select c.candidateId as candidateId, count(c) as requests from RunCell c "
            + "where c.state = org.mossbank.server.run.CellStage.ASKING group by c.candidateId")
    List<UnderWay> underWay();

    /** What a run has spent, and what it may still spend on what is under way. */
    record Spending(BigDecimal cost, long tokens, BigDecimal reservedCost, long reservedTokens) {}

    @Query("select coalesce(sum(c.spentCost), 0) as cost, coalesce(sum(c.spentTokens), 0) as tokens, "
            + "coalesce(sum(c.reservedCost), 0) as reservedCost, coalesce(sum(c.reservedTokens), 0) as reservedTokens "
            + "from RunCell c where c.runId = :run")
    Spending spending(UUID run);

    /** The first group in which something is to be done. */
    @Query("select min(c.groupNo) from RunCell c where c.runId = :run and c.state in "
            + "(org.mossbank.server.run.CellStage.WAITING, org.mossbank.server.run.CellStage.ASKING)")
    @org.jspecify.annotations.Nullable
    Integer firstOpenGroup(UUID run);

    @Query("select count(c) from RunCell c where c.runId = :run and c.state = :state")
    long count(UUID run, CellStage state);

    @Query(
            "select c.id from RunCell c where c.state = org.mossbank.server.run.CellStage.ASKING and c.leaseUntil < :now")
    List<UUID> forsaken(Instant now);

    boolean existsByPromptId(UUID prompt);

    boolean existsByCandidateId(UUID candidate);
}
