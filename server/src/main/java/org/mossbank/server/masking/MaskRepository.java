package org.mossbank.server.masking;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AnswerId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface MaskRepository extends JpaRepository<Mask, UUID> {
    @Query("select m from Mask m where m.answerId in :answers order by m.answerId, m.from")
    List<Mask> ofAnswers(List<AnswerId> answers);

    @Modifying
    @Query("delete from Mask m where m.answerId = :answer")
    void deleteOfAnswer(AnswerId answer);
}
