package org.mossbank.server.calibration;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface CalibrationWordRepository extends JpaRepository<CalibrationWord, UUID> {
    List<CalibrationWord> findByStudyIdOrderBySaidAt(StudyId studyId);

    List<CalibrationWord> findByStudyIdAndNumberAndAnswerIdOrderBySaidAt(
            StudyId studyId, int number, AnswerId answerId);

    /** How much was said of an answer on a criterion, or on none. */
    record Said(AnswerId answerId, @Nullable CriterionId criterionId, long words) {}

    @Query("""
            select new org.mossbank.server.calibration.CalibrationWordRepository$Said(
                w.answerId, w.criterionId, count(w))
            from CalibrationWord w where w.studyId = :study and w.number = :number
            group by w.answerId, w.criterionId""")
    List<Said> counted(StudyId study, int number);

    int countByStudyIdAndNumber(StudyId studyId, int number);
}
