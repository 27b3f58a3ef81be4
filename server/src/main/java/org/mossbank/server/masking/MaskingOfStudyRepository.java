package org.mossbank.server.masking;

import jakarta.persistence.LockModeType;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface MaskingOfStudyRepository extends JpaRepository<MaskingOfStudy, StudyId> {
    /** Alone, to decide or to write. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select m from MaskingOfStudy m where m.studyId = :study")
    MaskingOfStudy lock(StudyId study);
}
