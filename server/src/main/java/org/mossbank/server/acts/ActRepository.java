package org.mossbank.server.acts;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface ActRepository extends JpaRepository<Act, UUID> {
    /** In the order in which they were kept. */
    @Query(value = "select * from act where study_id = :#{#study.value()} order by number", nativeQuery = true)
    List<Act> ofStudy(StudyId study);

    @Query("""
            select a.id from Act a where a.studyId = :study
            and not exists (select 1 from ActOutcome o where o.actId = a.id)""")
    List<UUID> withoutOutcome(StudyId study);
}
