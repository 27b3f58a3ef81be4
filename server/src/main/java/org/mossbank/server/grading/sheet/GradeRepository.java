package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import org.mossbank.server.ids.SheetAnswerId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface GradeRepository extends JpaRepository<Grade, Grade.Key> {
    @Query("select g from Grade g where g.key.sheetAnswerId in :sheetAnswers")
    List<Grade> ofSheetAnswers(Collection<SheetAnswerId> sheetAnswers);
}
