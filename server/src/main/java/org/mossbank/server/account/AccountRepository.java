package org.mossbank.server.account;

import jakarta.persistence.LockModeType;
import jakarta.persistence.QueryHint;
import java.util.Optional;
import org.mossbank.server.ids.AccountId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.jpa.repository.QueryHints;

interface AccountRepository extends JpaRepository<Account, AccountId> {
    Optional<Account> findBySignInName(String signInName);

    /** Alone until the transaction ends, and as it stands now. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @QueryHints(@QueryHint(name = "jakarta.persistence.cache.retrieveMode", value = "BYPASS"))
    @Query("select a from Account a where a.id = :id")
    Optional<Account> lock(AccountId id);
}
