package org.mossbank.server.masking;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface MaskRepository extends JpaRepository<Mask, UUID> {
    @Query("select m from Mask m where m.answerId in :answers order by m.answerId, m.from")
    List<Mask> ofAnswers(List<AnswerId> answers);

    /** Of all answers of a study, however many they are. */
    @Query(nativeQuery = true, value = """
                    select m.* from mask m join answer a on a.id = m.answer_id where a.study_id = :#{#study.value()}
                    order by m.answer_id, m.span_from""")
    List<Mask> ofStudy(StudyId study);

    @Modifying
    @Query("delete from Mask m where m.answerId = :answer")
    void deleteOfAnswer(AnswerId answer);
}
