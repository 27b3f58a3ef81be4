package org.mossbank.server.grading.sheet;

import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface SheetEventRepository extends JpaRepository<SheetEvent, UUID> {
    /** Whether anything was ever done on a rater's sheets. */
    @Query("""
            select count(s) > 0 from Sheet s where s.studyId = :study and s.raterId = :rater and (
                exists (select e.id from SheetEvent e where e.sheetId = s.id)
                or exists (select c.changeId from SheetAnswer a join GradingChange c on c.sheetAnswerId = a.id
                    where a.sheetId = s.id))""")
    boolean isAnythingDone(StudyId study, AccountId rater);

    /** How often each sheet was taken back. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(e.sheetId, count(e))
            from SheetEvent e join Sheet s on s.id = e.sheetId
            where s.studyId = :study and e.sort = TAKEN_BACK group by e.sheetId""")
    List<SheetCount<SheetId>> countTakenBack(StudyId study);
}
