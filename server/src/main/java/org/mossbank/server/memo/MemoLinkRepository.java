package org.mossbank.server.memo;

import java.util.List;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface MemoLinkRepository extends JpaRepository<MemoLink, UUID> {
    List<MemoLink> findByMemoIdOrderByMadeAt(UUID memo);

    Optional<MemoLink> findByTokenHash(byte[] tokenHash);
}
