package org.mossbank.server.candidate;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface CandidateRepository extends JpaRepository<Candidate, UUID> {
    List<Candidate> findByStudyIdOrderByPlace(UUID studyId);

    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select c from Candidate c where c.id = :candidate and c.studyId = :study")
    Optional<Candidate> lock(UUID study, UUID candidate);

    int countByStudyId(UUID studyId);
}
