package org.mossbank.server.expected;

import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.repository.Repository;

interface ClaimRepository extends Repository<Claim, Claim.Key> {
    @Query("select c from Claim c where c.key.studyId = :study order by c.key.place")
    List<Claim> ofStudy(StudyId study);

    @Modifying(clearAutomatically = true, flushAutomatically = true)
    @Query("delete from Claim c where c.key.studyId = :study")
    void deleteOfStudy(StudyId study);
}
