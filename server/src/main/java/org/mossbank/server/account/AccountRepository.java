package org.mossbank.server.account;

import jakarta.persistence.LockModeType;
import jakarta.persistence.QueryHint;
import java.util.Collection;
import java.util.List;
import java.util.Optional;
import org.mossbank.server.ids.AccountId;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Lock;
import org.springframework.data.jpa.repository.Query;
import org.springframework.data.jpa.repository.QueryHints;

interface AccountRepository extends JpaRepository<Account, AccountId> {
    Optional<Account> findBySignInName(String signInName);

    List<Account> findBySignInNameIn(Collection<String> signInNames);

    /** Those who can let others administer, alone until the transaction ends. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @Query("select a from Account a where a.administrator = true and a.deactivatedAt is null order by a.id")
    List<Account> lockAdministrators();

    /** By sign-in name, those after the one that is named. */
    @Query("""
            select a from Account a where a.signInName > :after
            and (locate(:part, a.signInName) > 0 or locate(:part, lower(a.displayName)) > 0)
            order by a.signInName""")
    List<Account> page(String after, String part, Limit limit);

    /** Alone until the transaction ends, and as it stands now. */
    @Lock(LockModeType.PESSIMISTIC_WRITE)
    @QueryHints(@QueryHint(name = "jakarta.persistence.cache.retrieveMode", value = "BYPASS"))
    @Query("select a from Account a where a.id = :id")
    Optional<Account> lock(AccountId id);
}
