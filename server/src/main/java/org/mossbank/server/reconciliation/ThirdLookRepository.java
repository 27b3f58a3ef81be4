package org.mossbank.server.reconciliation;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface ThirdLookRepository extends JpaRepository<ThirdLook, ThirdLook.Key> {
    @Query("select t from ThirdLook t where t.key.reconciliationId = :reconciliation order by t.askedAt")
    List<ThirdLook> ofSplit(UUID reconciliation);

    @Query("select t from ThirdLook t where t.key.raterId = :rater order by t.askedAt")
    List<ThirdLook> ofRater(AccountId rater);

    @Query("""
            select t from ThirdLook t join Reconciliation r on r.id = t.key.reconciliationId
            where r.studyId in :studies order by t.askedAt""")
    List<ThirdLook> ofStudies(List<StudyId> studies);
}
