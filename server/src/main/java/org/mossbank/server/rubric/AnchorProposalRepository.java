package org.mossbank.server.rubric;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface AnchorProposalRepository extends JpaRepository<AnchorProposal, UUID> {
    List<AnchorProposal> findByStudyIdOrderByProposedAt(StudyId studyId);

    int countByStudyId(StudyId studyId);

    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select p from AnchorProposal p where p.id = :id and p.studyId = :study")
    Optional<AnchorProposal> lock(StudyId study, UUID id);
}
