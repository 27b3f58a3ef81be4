package org.mossbank.server.answer;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface AnswerRepository extends JpaRepository<Answer, UUID> {
    @Query("select a from Answer a where a.studyId = :study order by a.key")
    List<Answer> ofStudy(UUID study);

    @Query("select a from Answer a where a.studyId = :study and a.promptId = :prompt order by a.key")
    List<Answer> ofPrompt(UUID study, UUID prompt);

    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select a from Answer a where a.id = :answer and a.studyId = :study")
    Optional<Answer> lock(UUID study, UUID answer);

    @Query("select a from Answer a where a.id = :answer and a.studyId = :study")
    Optional<Answer> ofStudyById(UUID study, UUID answer);

    boolean existsByStudyId(UUID studyId);

    boolean existsByStudyIdAndPromptId(UUID study, UUID prompt);

    boolean existsByStudyIdAndCandidateId(UUID study, UUID candidate);
}
