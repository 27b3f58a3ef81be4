package org.mossbank.server.trial;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface TrialRepository extends JpaRepository<Trial, UUID> {
    /** Taken by one server at a time; what another takes at this moment is passed over. */
    @Query(
            value = "select * from trial where state = 'WAITING' order by place, id limit :most for update skip locked",
            nativeQuery = true)
    List<Trial> waiting(int most);

    @Query(value = "select * from trial where id = :trial for update", nativeQuery = true)
    Optional<Trial> lock(UUID trial);

    @Query(
            value = "select * from trial where state = 'RUNNING' and lease_until < :now for update skip locked",
            nativeQuery = true)
    List<Trial> forsaken(Instant now);

    /** Without results, which are large. */
    record Outline(
            UUID id,
            PromptId promptId,
            AnswerId answerId,
            int turn,
            int repetition,
            String checkDigest,
            Trial.State state,
            @Nullable TrialOutcome outcome,
            int passed,
            int asked,
            long millis,
            long memoryKb,
            int warnings,
            int deprecations,
            int broken,
            int mended,
            @Nullable Instant endedAt) {}

    @Query(
            "select t.id as id, t.promptId as promptId, t.answerId as answerId, t.turn as turn, t.repetition as repetition, "
                    + "t.checkDigest as checkDigest, t.state as state, t.outcome as outcome, t.passed as passed, t.asked as asked, "
                    + "t.millis as millis, t.memoryKb as memoryKb, t.warnings as warnings, t.deprecations as deprecations, "
                    + "t.broken as broken, t.mended as mended, t.endedAt as endedAt from Trial t where t.studyId = :study order by t.place, t.id")
    List<Outline> outlines(StudyId study);

    record CountOf(Trial.State state, long trials) {}

    @Query("select t.state as state, count(t) as trials from Trial t where t.studyId = :study group by t.state")
    List<CountOf> counts(StudyId study);

    long countByStudyIdAndState(StudyId study, Trial.State state);

    /** A trial that has ended, by the check as it is now. */
    record Ended(
            UUID id,
            PromptId promptId,
            AnswerId answerId,
            int turn,
            int repetition,
            TrialOutcome outcome,
            int passed,
            int asked,
            int warnings,
            int deprecations,
            int broken,
            int mended) {}

    String ENDED = "select t.id as id, t.promptId as promptId, t.answerId as answerId, t.turn as turn, "
            + "t.repetition as repetition, t.outcome as outcome, t.passed as passed, t.asked as asked, "
            + "t.warnings as warnings, t.deprecations as deprecations, t.broken as broken, t.mended as mended from Trial t, PromptCheck c "
            + "where c.promptId = t.promptId and c.digest = t.checkDigest "
            + "and t.state = org.mossbank.server.trial.Trial.State.ENDED ";

    @Query(ENDED + "and t.answerId in :answers order by t.turn, t.repetition")
    List<Ended> ended(Collection<AnswerId> answers);

    @Query(ENDED + "and t.studyId = :study order by t.turn, t.repetition")
    List<Ended> ended(StudyId study);

    @Query("select t from Trial t, PromptCheck c where c.promptId = t.promptId and c.digest = t.checkDigest "
            + "and t.state = org.mossbank.server.trial.Trial.State.ENDED and t.studyId = :study order by t.place, t.id")
    List<Trial> current(StudyId study);

    @Query("select coalesce(max(t.place), 0) from Trial t")
    long lastPlace();

    @Query("select t from Trial t where t.id = :trial and t.studyId = :study")
    Optional<Trial> ofStudyById(StudyId study, UUID trial);

    @Modifying
    @Query(
            "update Trial t set t.state = org.mossbank.server.trial.Trial.State.STOPPED, t.owner = null, t.leaseUntil = null "
                    + "where t.studyId = :study and t.state in (org.mossbank.server.trial.Trial.State.WAITING, "
                    + "org.mossbank.server.trial.Trial.State.RUNNING)")
    int stop(StudyId study);

    @Modifying
    @Query("update Trial t set t.state = org.mossbank.server.trial.Trial.State.WAITING "
            + "where t.studyId = :study and t.state = org.mossbank.server.trial.Trial.State.STOPPED")
    int goOn(StudyId study);

    /** Those of a check that is another now have nothing to wait for. */
    @Modifying
    @Query("delete from Trial t where t.promptId = :prompt and t.checkDigest <> :digest "
            + "and t.state <> org.mossbank.server.trial.Trial.State.ENDED")
    int forget(PromptId prompt, String digest);

    List<Trial> findByAnswerId(AnswerId answer);

    @Modifying
    @Query("delete from Trial t where t.promptId = :prompt")
    int deleteAllByPromptId(PromptId prompt);
}
