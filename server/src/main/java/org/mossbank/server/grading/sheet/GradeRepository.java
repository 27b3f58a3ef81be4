package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface GradeRepository extends JpaRepository<Grade, Grade.Key> {
    @Query("select g from Grade g where g.key.sheetAnswerId in :sheetAnswers")
    List<Grade> ofSheetAnswers(Collection<UUID> sheetAnswers);
}
