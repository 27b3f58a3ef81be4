package org.mossbank.server.run;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface RunRepository extends JpaRepository<Run, UUID> {
    @Query("select r from Run r where r.studyId = :study order by r.startedAt, r.key")
    List<Run> ofStudy(StudyId study);

    @Query("select r.id from Run r where r.state = org.mossbank.server.run.Run.State.RUNNING order by r.startedAt")
    List<UUID> going();

    /** Alone, to change it or what it has spent. Nothing may have read it before in the same transaction: it would be stale. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select r from Run r where r.id = :run")
    Optional<Run> lock(UUID run);

    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select r from Run r where r.id = :run and r.studyId = :study")
    Optional<Run> lockOfStudy(StudyId study, UUID run);

    @Query("select r from Run r where r.id = :run and r.studyId = :study")
    Optional<Run> ofStudyById(StudyId study, UUID run);
}
