package org.mossbank.server.masking;

import jakarta.persistence.LockModeType;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface MaskingOfStudyRepository extends JpaRepository<MaskingOfStudy, UUID> {
    /** Alone, to decide or to write. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select m from MaskingOfStudy m where m.studyId = :study")
    MaskingOfStudy lock(UUID study);
}
