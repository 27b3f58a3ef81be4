package org.mossbank.server.account;

import java.time.Instant;
import java.util.Optional;
import java.util.UUID;
import org.springframework.data.jpa.repository.JpaRepository;

interface OneTimeLinkRepository extends JpaRepository<OneTimeLink, byte[]> {
    Optional<OneTimeLink> findByTokenHashAndExpiresAtAfter(byte[] tokenHash, Instant now);

    void deleteByAccountId(UUID accountId);
}
