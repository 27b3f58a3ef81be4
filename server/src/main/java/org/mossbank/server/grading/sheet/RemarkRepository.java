package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface RemarkRepository extends JpaRepository<Remark, UUID> {
    /** Those that stand, in a stable order. */
    @Query("""
            select r from Remark r where r.sheetAnswerId in :sheetAnswers and r.removed = false
            order by r.part nulls first, r.path, r.fromLine, r.toLine, r.stance, r.trait, r.words""")
    List<Remark> ofSheetAnswers(Collection<SheetAnswerId> sheetAnswers);

    /** The same of all sheets. */
    @Query("""
            select r from Remark r join SheetAnswer a on a.id = r.sheetAnswerId join Sheet s on s.id = a.sheetId
            where s.studyId = :study and r.removed = false
            order by r.part nulls first, r.path, r.fromLine, r.toLine, r.stance, r.trait, r.words""")
    List<Remark> ofStudy(StudyId study);
}
