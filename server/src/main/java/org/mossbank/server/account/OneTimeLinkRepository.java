package org.mossbank.server.account;

import java.time.Instant;
import java.util.Optional;
import org.mossbank.server.ids.AccountId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Modifying;
import org.springframework.data.jpa.repository.Query;

interface OneTimeLinkRepository extends JpaRepository<OneTimeLink, byte[]> {
    Optional<OneTimeLink> findByTokenHashAndExpiresAtAfter(byte[] tokenHash, Instant now);

    @Modifying(clearAutomatically = false)
    @Query("delete from OneTimeLink l where l.accountId = :accountId")
    int deleteByAccountId(AccountId accountId);

    @Modifying(clearAutomatically = false)
    @Query("delete from OneTimeLink l where l.tokenHash = :tokenHash and l.expiresAt > :now")
    int deleteLive(byte[] tokenHash, Instant now);
}
