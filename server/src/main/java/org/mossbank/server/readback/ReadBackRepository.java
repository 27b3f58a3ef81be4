package org.mossbank.server.readback;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.springframework.data.jpa.repository.JpaRepository;

interface ReadBackRepository extends JpaRepository<ReadBack, UUID> {
    List<ReadBack> findByPromptIdInOrderByAskedAt(Collection<PromptId> promptIds);

    List<ReadBack> findByReaderIdOrderByAskedAt(AccountId readerId);

    void deleteByPromptId(PromptId promptId);

    boolean existsByPromptIdAndReaderId(PromptId promptId, AccountId readerId);
}
