package org.mossbank.server.prompt;

import java.util.List;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;

interface KindRepository extends JpaRepository<Kind, KindId> {
    List<Kind> findByStudyIdOrderByPlace(StudyId studyId);
}
