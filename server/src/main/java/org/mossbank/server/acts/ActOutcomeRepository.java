package org.mossbank.server.acts;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface ActOutcomeRepository extends JpaRepository<ActOutcome, UUID> {
    @Query("select o from ActOutcome o where exists (select 1 from Act a where a.id = o.actId and a.studyId = :study)")
    List<ActOutcome> ofStudy(StudyId study);
}
