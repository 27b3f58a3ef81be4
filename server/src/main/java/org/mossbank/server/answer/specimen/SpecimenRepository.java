package org.mossbank.server.answer.specimen;

import java.util.Collection;
import java.util.List;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface SpecimenRepository extends JpaRepository<Specimen, AnswerId> {
    @Query("select s from Specimen s where s.studyId = :study order by s.key")
    List<Specimen> ofStudy(StudyId study);

    @Query("select s from Specimen s where s.studyId = :study and s.promptId in :prompts order by s.key")
    List<Specimen> ofPrompts(StudyId study, Collection<PromptId> prompts);

    @Query("select s from Specimen s where s.promptId = :prompt")
    List<Specimen> ofPrompt(PromptId prompt);

    /** Keys that a study's answers have, those of candidates among them. */
    @Query("select a.key from AnswerPlace a where a.studyId = :study")
    List<String> taken(StudyId study);
}
