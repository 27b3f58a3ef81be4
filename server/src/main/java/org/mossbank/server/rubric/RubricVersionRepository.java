package org.mossbank.server.rubric;

import jakarta.persistence.LockModeType;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface RubricVersionRepository extends JpaRepository<RubricVersion, UUID> {
    List<RubricVersion> findByStudyIdOrderByNumber(StudyId studyId);

    List<RubricVersion> findByStudyIdInOrderByNumber(Collection<StudyId> studyIds);

    /** Alone, to change one. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select v from RubricVersion v where v.studyId = :study order by v.number")
    List<RubricVersion> lock(StudyId study);
}
