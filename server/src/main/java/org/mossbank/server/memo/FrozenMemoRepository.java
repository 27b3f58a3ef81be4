package org.mossbank.server.memo;

import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface FrozenMemoRepository extends JpaRepository<FrozenMemo, UUID> {}
