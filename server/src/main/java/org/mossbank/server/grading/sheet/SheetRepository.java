package org.mossbank.server.grading.sheet;

import jakarta.persistence.LockModeType;
import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.grading.SentGrade;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;

public interface SheetRepository extends JpaRepository<Sheet, UUID> {
    List<Sheet> findByRaterIdOrderByStudyIdAscPlaceAsc(UUID raterId);

    List<Sheet> findByStudyIdOrderByRaterIdAscPlaceAsc(UUID studyId);

    List<Sheet> findByStudyIdAndRaterIdOrderByPlace(UUID studyId, UUID raterId);

    List<Sheet> findByStudyIdAndPromptId(UUID studyId, UUID promptId);

    /** One writer a sheet at a time: two tabs take turns. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select s from Sheet s where s.id = :sheet")
    Optional<Sheet> lock(UUID sheet);

    /** What never changes about a sheet. */
    record Ids(UUID studyId, UUID raterId, UUID promptId) {}

    /** Without the sheet itself, so that it is read afresh when it is locked. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetRepository$Ids(s.studyId, s.raterId, s.promptId)
            from Sheet s where s.id = :sheet""")
    Optional<Ids> ids(UUID sheet);

    /** Marks made so far on each sheet. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.sheetId, count(g))
            from SheetAnswer a join Grade g on g.key.sheetAnswerId = a.id
            where a.sheetId in :sheets and (g.level is not null or g.notApplicable = true)
            group by a.sheetId""")
    List<SheetCount> countMarks(List<UUID> sheets);

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.sheetId, count(a))
            from SheetAnswer a where a.sheetId in :sheets group by a.sheetId""")
    List<SheetCount> countAnswers(List<UUID> sheets);

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.sheetId, count(a))
            from SheetAnswer a where a.sheetId in :sheets and a.reason <> '' group by a.sheetId""")
    List<SheetCount> countReasons(List<UUID> sheets);

    /** Grades on first sheets that were sent in for some prompts; not applicable ones and gaps are left out. */
    @Query("""
            select new org.mossbank.server.grading.SentGrade(s.raterId, a.answerId, g.key.criterionId, g.level)
            from Sheet s join SheetAnswer a on a.sheetId = s.id join Grade g on g.key.sheetAnswerId = a.id
            where s.studyId = :study and s.promptId in :prompts and s.repeat = :repeat
                and s.sentAt is not null and s.withdrawnAt is null and g.level is not null
            order by a.answerId, s.raterId, g.key.criterionId""")
    List<SentGrade> sentGrades(UUID study, List<UUID> prompts, boolean repeat);

    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(a.answerId, count(s))
            from Sheet s join SheetAnswer a on a.sheetId = s.id
            where s.studyId = :study and s.promptId in :prompts and s.repeat = false and s.sentAt is not null
                and s.withdrawnAt is null
            group by a.answerId""")
    List<SheetCount> ratersByAnswer(UUID study, List<UUID> prompts);
}
