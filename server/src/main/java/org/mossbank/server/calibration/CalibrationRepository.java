package org.mossbank.server.calibration;

import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface CalibrationRepository extends JpaRepository<Calibration, Calibration.Key> {
    @Query("select c from Calibration c where c.key.studyId = :study order by c.key.number")
    List<Calibration> ofStudy(StudyId study);

    @Query("select c from Calibration c where c.key.studyId in :studies order by c.key.number")
    List<Calibration> ofStudies(List<StudyId> studies);
}
