package org.mossbank.server.grading;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface SheetAnswerRepository extends JpaRepository<SheetAnswer, UUID> {
    List<SheetAnswer> findBySheetIdInOrderByPlace(Collection<UUID> sheetIds);
}
