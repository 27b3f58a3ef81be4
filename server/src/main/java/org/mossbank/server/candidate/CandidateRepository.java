package org.mossbank.server.candidate;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface CandidateRepository extends JpaRepository<Candidate, CandidateId> {
    List<Candidate> findByStudyIdOrderByPlace(StudyId studyId);

    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select c from Candidate c where c.id = :candidate and c.studyId = :study")
    Optional<Candidate> lock(StudyId study, CandidateId candidate);

    int countByStudyId(StudyId studyId);
}
