package org.mossbank.server.memo;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface MemoDissentRepository extends JpaRepository<MemoDissent, MemoDissent.Key> {
    /** Oldest first. */
    @Query("select d from MemoDissent d where d.key.memoId = :memo order by d.saidAt, d.key.raterId")
    List<MemoDissent> ofMemo(UUID memo);
}
