package org.mossbank.server.grading.sheet;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.SheetId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

public interface SheetEventRepository extends JpaRepository<SheetEvent, UUID> {
    /** How often each sheet was taken back. */
    @Query("""
            select new org.mossbank.server.grading.sheet.SheetCount(e.sheetId, count(e))
            from SheetEvent e where e.sheetId in :sheets and e.sort = TAKEN_BACK group by e.sheetId""")
    List<SheetCount<SheetId>> countTakenBack(Collection<SheetId> sheets);
}
