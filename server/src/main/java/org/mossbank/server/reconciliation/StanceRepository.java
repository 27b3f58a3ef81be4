package org.mossbank.server.reconciliation;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface StanceRepository extends JpaRepository<Stance, UUID> {
    List<Stance> findByReconciliationIdOrderByTakenAt(UUID reconciliationId);

    @Query("""
            select s from Stance s join Reconciliation r on r.id = s.reconciliationId
            where r.studyId in :studies order by s.takenAt""")
    List<Stance> ofStudies(Collection<StudyId> studies);
}
