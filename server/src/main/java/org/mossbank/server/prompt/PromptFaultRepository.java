package org.mossbank.server.prompt;

import java.util.Collection;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.PromptId;
import org.springframework.data.jpa.repository.JpaRepository;

interface PromptFaultRepository extends JpaRepository<PromptFault, UUID> {
    List<PromptFault> findByPromptIdInAndTakenBackAtIsNull(Collection<PromptId> promptIds);

    List<PromptFault> findByPromptId(PromptId promptId);
}
