package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface SheetAnswerRepository extends JpaRepository<SheetAnswer, SheetAnswerId> {
    List<SheetAnswer> findBySheetIdInOrderByPlace(Collection<SheetId> sheetIds);

    @Query("select a from SheetAnswer a join Sheet s on s.id = a.sheetId where s.studyId = :study order by a.place")
    List<SheetAnswer> ofStudy(StudyId study);

    /** A window's sum only ever grows. */
    @Modifying
    @Query(nativeQuery = true, value = """
                    insert into active_time (sheet_answer_id, window_id, ms) values (:answer, :window, :ms)
                    on conflict (sheet_answer_id, window_id) do update set ms = greatest(active_time.ms, excluded.ms)""")
    void tellTime(SheetAnswerId answer, UUID window, long ms);

    /** The same of many answers, each in a window of its own; both in the same order. */
    @Modifying
    @Query(nativeQuery = true, value = """
                    insert into active_time (sheet_answer_id, window_id, ms)
                    select t.answer, gen_random_uuid(), t.ms
                    from unnest(cast(:answers as uuid[]), cast(:ms as bigint[])) as t (answer, ms)""")
    void tellTimes(UUID[] answers, Long[] ms);

    /** Active time by answer on a sheet, over all windows; those without any are left out. */
    @Query(nativeQuery = true, value = """
                    select sheet_answer_id as id, cast(sum(ms) as bigint) as ms
                    from active_time join sheet_answer a on a.id = sheet_answer_id join sheet s on s.id = a.sheet_id
                    where s.study_id = :#{#study.value()} group by sheet_answer_id""")
    List<ActiveTime> activeMs(StudyId study);

    /** Time in milliseconds. */
    interface ActiveTime {
        UUID getId();

        long getMs();
    }
}
