package org.mossbank.server.trial;

import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface RepairRepository extends JpaRepository<Repair, RepairId> {
    /** By the check as it is now. */
    @Query("select r from Repair r, PromptCheck c where c.promptId = r.promptId and c.digest = r.checkDigest "
            + "and r.answerId in :answers order by r.madeAt, r.id")
    List<Repair> ofAnswers(Collection<AnswerId> answers);

    @Query("select r from Repair r, PromptCheck c where c.promptId = r.promptId and c.digest = r.checkDigest "
            + "and r.studyId = :study order by r.madeAt, r.id")
    List<Repair> current(StudyId study);

    @Query("select r from Repair r where r.id = :repair and r.answerId = :answer")
    Optional<Repair> one(AnswerId answer, RepairId repair);

    @Query("select count(r) from Repair r where r.answerId = :answer and r.authorId = :author")
    int countBy(AnswerId answer, AccountId author);

    List<Repair> findByAnswerId(AnswerId answer);

    @Modifying
    @Query("delete from Repair r where r.promptId = :prompt")
    int deleteAllByPromptId(PromptId prompt);

    long countByStudyId(StudyId study);
}
