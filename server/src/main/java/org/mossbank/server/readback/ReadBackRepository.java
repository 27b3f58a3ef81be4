package org.mossbank.server.readback;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface ReadBackRepository extends JpaRepository<ReadBack, UUID> {
    List<ReadBack> findByPromptIdInOrderByAskedAt(Collection<UUID> promptIds);

    List<ReadBack> findByReaderIdOrderByAskedAt(UUID readerId);

    void deleteByPromptId(UUID promptId);

    boolean existsByPromptIdAndReaderId(UUID promptId, UUID readerId);
}
