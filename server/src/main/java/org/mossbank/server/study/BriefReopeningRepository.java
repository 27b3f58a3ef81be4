package org.mossbank.server.study;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;

interface BriefReopeningRepository extends JpaRepository<BriefReopening, UUID> {
    List<BriefReopening> findByStudyIdOrderByReopenedAt(StudyId studyId);
}
