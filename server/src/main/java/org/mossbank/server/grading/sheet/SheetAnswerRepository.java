package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

public interface SheetAnswerRepository extends JpaRepository<SheetAnswer, SheetAnswerId> {
    List<SheetAnswer> findBySheetIdInOrderByPlace(Collection<SheetId> sheetIds);

    /** A window's sum only ever grows. */
    @Modifying
    @Query(nativeQuery = true, value = """
                    insert into active_time (sheet_answer_id, window_id, ms) values (:answer, :window, :ms)
                    on conflict (sheet_answer_id, window_id) do update set ms = greatest(active_time.ms, excluded.ms)""")
    void tellTime(SheetAnswerId answer, UUID window, long ms);

    /** Active time by answer on a sheet, over all windows; those without any are left out. */
    @Query(nativeQuery = true, value = """
                    select sheet_answer_id as id, cast(sum(ms) as bigint) as ms
                    from active_time where sheet_answer_id in (:sheetAnswers) group by sheet_answer_id""")
    List<ActiveTime> activeMs(Collection<SheetAnswerId> sheetAnswers);

    /** Time in milliseconds. */
    interface ActiveTime {
        UUID getId();

        long getMs();
    }
}
