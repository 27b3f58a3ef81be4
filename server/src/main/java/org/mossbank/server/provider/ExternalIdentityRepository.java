package org.mossbank.server.provider;

import java.util.List;
import org.mossbank.server.ids.AccountId;
import org.springframework.data.jpa.repository.JpaRepository;

interface ExternalIdentityRepository extends JpaRepository<ExternalIdentity, ExternalIdentity.Key> {
    List<ExternalIdentity> findByAccountIdOrderByCreatedAt(AccountId accountId);
}
