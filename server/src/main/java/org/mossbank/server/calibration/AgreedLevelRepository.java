package org.mossbank.server.calibration;

import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface AgreedLevelRepository extends JpaRepository<AgreedLevel, AgreedLevel.Key> {
    @Query("select l from AgreedLevel l where l.key.studyId = :study order by l.saidAt")
    List<AgreedLevel> ofStudy(StudyId study);

    @Query("select l from AgreedLevel l where l.key.studyId = :study and l.key.number = :number order by l.saidAt")
    List<AgreedLevel> of(StudyId study, int number);
}
