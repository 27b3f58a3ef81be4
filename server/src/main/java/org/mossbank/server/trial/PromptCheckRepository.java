package org.mossbank.server.trial;

import java.util.List;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface PromptCheckRepository extends JpaRepository<PromptCheck, PromptId> {
    @Query("select c from PromptCheck c where c.studyId = :study order by c.promptId")
    List<PromptCheck> ofStudy(StudyId study);

    /** Which check a prompt has, without what it asks, which can be much. */
    record Digest(PromptId promptId, String digest) {}

    @Query(
            "select c.promptId as promptId, c.digest as digest from PromptCheck c where c.studyId = :study order by c.promptId")
    List<Digest> digests(StudyId study);
}
