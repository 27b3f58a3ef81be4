package org.mossbank.server.prompt;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface PromptRepository extends JpaRepository<Prompt, UUID> {
    @Query("select p from Prompt p where p.studyId = :study order by p.place")
    List<Prompt> ofStudy(UUID study);

    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select p from Prompt p where p.id = :prompt and p.studyId = :study")
    Optional<Prompt> lock(UUID study, UUID prompt);

    @Query("select p from Prompt p where p.bankPromptId = :bankPrompt")
    List<Prompt> takenFrom(UUID bankPrompt);
}
