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

    /** Where an answer stands; without its text, which may be long. */
    record Place(String key, UUID promptId, UUID candidateId, int attempt) {}

    @Query("select new org.mossbank.server.answer.AnswerRepository$Place(a.key, a.promptId, a.candidateId, a.attempt)"
            + " from Answer a where a.studyId = :study")
    List<Place> places(UUID study);

    long countByStudyId(UUID study);

    @Query("select coalesce(sum(length(a.text)), 0) from Answer a where a.studyId = :study")
    long firstReplyCharacters(UUID study);

    @Query("select coalesce(sum(length(f.asked) + length(f.reply)), 0) from Answer a join a.followUps f"
            + " where a.studyId = :study")
    long followUpCharacters(UUID study);

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
