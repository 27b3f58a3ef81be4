package org.mossbank.server.prompt;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface KindRepository extends JpaRepository<Kind, UUID> {
    List<Kind> findByStudyIdOrderByPlace(UUID studyId);
}
