package org.mossbank.server.memo;

import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface MemoEntryRepository extends JpaRepository<MemoEntry, UUID> {
    List<MemoEntry> findByMemoIdOrderByAddedAt(UUID memo);
}
