package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface GradeRepository extends JpaRepository<Grade, Grade.Key> {
    @Query("select g from Grade g where g.key.sheetAnswerId in :sheetAnswers")
    List<Grade> ofSheetAnswers(Collection<SheetAnswerId> sheetAnswers);

    @Query("""
            select g from Grade g join SheetAnswer a on a.id = g.key.sheetAnswerId join Sheet s on s.id = a.sheetId
            where s.studyId = :study""")
    List<Grade> ofStudy(StudyId study);
}
