package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface CoverageRepository extends JpaRepository<Coverage, Coverage.Key> {
    @Query("select c from Coverage c where c.key.sheetAnswerId in :sheetAnswers order by c.key.point")
    List<Coverage> ofSheetAnswers(Collection<SheetAnswerId> sheetAnswers);

    @Query("""
            select c from Coverage c join SheetAnswer a on a.id = c.key.sheetAnswerId join Sheet s on s.id = a.sheetId
            where s.studyId = :study order by c.key.point""")
    List<Coverage> ofStudy(StudyId study);
}
