package org.mossbank.server.reconciliation;

import jakarta.persistence.LockModeType;
import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface ReconciliationRepository extends JpaRepository<Reconciliation, UUID> {
    List<Reconciliation> findByStudyIdInOrderByTakenUpAt(Collection<StudyId> studyIds);

    /** When the last split of a study was taken up. */
    record LastTakenUp(StudyId studyId, Instant at) {}

    @Query("""
            select new org.mossbank.server.reconciliation.ReconciliationRepository$LastTakenUp(r.studyId, max(r.takenUpAt))
            from Reconciliation r where r.studyId in :studies group by r.studyId""")
    List<LastTakenUp> lastTakenUp(Collection<StudyId> studies);

    long countByStudyId(StudyId studyId);

    /** One writer a split at a time: of two who close it, the second is told. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select r from Reconciliation r where r.id = :id")
    Optional<Reconciliation> lock(UUID id);
}
