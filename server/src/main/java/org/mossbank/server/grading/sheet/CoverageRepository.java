package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import org.mossbank.server.ids.SheetAnswerId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface CoverageRepository extends JpaRepository<Coverage, Coverage.Key> {
    @Query("select c from Coverage c where c.key.sheetAnswerId in :sheetAnswers order by c.key.point")
    List<Coverage> ofSheetAnswers(Collection<SheetAnswerId> sheetAnswers);
}
