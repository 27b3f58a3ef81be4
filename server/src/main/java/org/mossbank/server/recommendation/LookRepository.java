package org.mossbank.server.recommendation;

import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface LookRepository extends JpaRepository<Look, Look.Key> {
    /** Without their reports, which are long. */
    @Query("""
            select new org.mossbank.server.recommendation.LookTaken(
                l.key.number, l.takenAt, l.takenBy, l.counted, l.planned, l.outcome, l.headline)
            from Look l where l.key.studyId = :study order by l.key.number""")
    List<LookTaken> ofStudy(StudyId study);
}
