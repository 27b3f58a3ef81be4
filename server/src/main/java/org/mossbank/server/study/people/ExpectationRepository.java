package org.mossbank.server.study.people;

import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface ExpectationRepository extends JpaRepository<Expectation, Membership.Key> {
    @Query("select e from Expectation e where e.key.studyId = :study order by e.declaredAt")
    List<Expectation> ofStudy(StudyId study);
}
