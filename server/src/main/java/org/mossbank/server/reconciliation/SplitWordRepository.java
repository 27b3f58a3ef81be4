package org.mossbank.server.reconciliation;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SplitWordRepository extends JpaRepository<SplitWord, UUID> {
    List<SplitWord> findByReconciliationIdOrderBySaidAt(UUID reconciliationId);

    @Query("""
            select w from SplitWord w join Reconciliation r on r.id = w.reconciliationId
            where r.studyId in :studies order by w.saidAt""")
    List<SplitWord> ofStudies(List<StudyId> studies);

    long countByReconciliationId(UUID reconciliationId);
}
