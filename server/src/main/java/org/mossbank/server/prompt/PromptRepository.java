package org.mossbank.server.prompt;

import jakarta.persistence.LockModeType;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

interface PromptRepository extends JpaRepository<Prompt, PromptId> {
    @Query("select p from Prompt p where p.studyId = :study order by p.place")
    List<Prompt> ofStudy(StudyId study);

    String IS_FAULTY =
            "exists (select f.promptId from PromptFault f where f.promptId = p.id and f.takenBackAt is null)";

    /** Whatever is not blank is a request. */
    String OUTLINE = "select new org.mossbank.server.prompt.Prompts$Outline(p.id, p.key, k.id, k.name, p.title,"
            + " case when function('btrim', p.request, ' \t\r\n') <> '' then true else false end,"
            + " case when " + IS_FAULTY + " then true else false end, p.calibration, p.followUps)"
            + " from Prompt p join Kind k on k.id = p.kindId ";

    @Query(OUTLINE + "where p.studyId = :study order by p.place")
    List<Prompts.Outline> outlines(StudyId study);

    @Query(OUTLINE + "where p.studyId in :studies order by p.studyId, p.place")
    List<Prompts.Outline> outlines(Collection<StudyId> studies);

    @Query("select new org.mossbank.server.prompt.Prompts$Versioned(p.id, p.version) from Prompt p"
            + " where p.studyId in :studies and (p.calibration is not null or " + IS_FAULTY + ")")
    List<Prompts.Versioned> notCounting(Collection<StudyId> studies);

    @Query(OUTLINE + "where p.id = :prompt")
    Optional<Prompts.Outline> outline(PromptId prompt);

    @Query("select new org.mossbank.server.prompt.Prompts$Versioned(p.id, p.version) from Prompt p"
            + " where p.studyId = :study")
    List<Prompts.Versioned> versions(StudyId study);

    @Query("select new org.mossbank.server.prompt.Prompts$InStudy(p.id, p.studyId) from Prompt p where p.id in :ids")
    List<Prompts.InStudy> inStudies(Collection<PromptId> ids);

    @Query("select p from Prompt p left join fetch p.startingFiles where p.id = :prompt")
    Optional<Prompt> withStartingFiles(PromptId prompt);

    /** Alone, to change it. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select p from Prompt p where p.id = :prompt and p.studyId = :study")
    Optional<Prompt> lock(StudyId study, PromptId prompt);

    @Query("select p from Prompt p where p.bankPromptId = :bankPrompt")
    List<Prompt> takenFrom(UUID bankPrompt);
}
