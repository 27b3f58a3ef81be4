package org.mossbank.server.mail;

import java.time.Instant;
import java.util.List;
import org.mossbank.server.ids.AccountId;
import org.springframework.data.domain.Limit;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface MailChoiceRepository extends JpaRepository<MailChoice, AccountId> {
    /** Those who want a day's letter and had none since; by account, those after the one named. */
    @Query("""
            select c from MailChoice c where c.digest = true and c.confirmedAt is not null
            and (c.digestAt is null or c.digestAt < :since) order by c.accountId""")
    List<MailChoice> withoutDigestSince(Instant since, Limit limit);
}
