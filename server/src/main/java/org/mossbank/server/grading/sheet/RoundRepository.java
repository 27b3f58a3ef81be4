package org.mossbank.server.grading.sheet;

import jakarta.persistence.LockModeType;
import java.util.Optional;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

public interface RoundRepository extends JpaRepository<Round, StudyId> {
    /** Shared with other raters, against closing. */
    @Lock(LockModeType.PESSIMISTIC_READ)
    @Query("select r from Round r where r.studyId = :study")
    Optional<Round> holdOpen(StudyId study);

    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select r from Round r where r.studyId = :study")
    Optional<Round> lock(StudyId study);
}
