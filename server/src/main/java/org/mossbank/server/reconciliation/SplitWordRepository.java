package org.mossbank.server.reconciliation;

import java.time.Instant;
import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SplitWordRepository extends JpaRepository<SplitWord, UUID> {
    List<SplitWord> findByReconciliationIdOrderBySaidAt(UUID reconciliationId);

    @Query("""
            select w from SplitWord w join Reconciliation r on r.id = w.reconciliationId
            where r.studyId in :studies order by w.saidAt""")
    List<SplitWord> ofStudies(List<StudyId> studies);

    /** That something was said; without the words, which may be many. */
    record Said(UUID reconciliationId, AccountId authorId, Instant at) {}

    @Query("""
            select new org.mossbank.server.reconciliation.SplitWordRepository$Said(
                w.reconciliationId, w.authorId, w.saidAt)
            from SplitWord w join Reconciliation r on r.id = w.reconciliationId where r.studyId in :studies""")
    List<Said> saidIn(Collection<StudyId> studies);

    long countByReconciliationId(UUID reconciliationId);
}
