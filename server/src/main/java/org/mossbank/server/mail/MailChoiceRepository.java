package org.mossbank.server.mail;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.mossbank.server.ids.AccountId;
import org.springframework.data.jpa.repository.JpaRepository;
import org.springframework.data.jpa.repository.Query;

interface MailChoiceRepository extends JpaRepository<MailChoice, AccountId> {
    /** Those who want a day's letter and had none since; in the order of accounts, those after the one named. */
    @Query(nativeQuery = true, value = """
            select * from mail_choice where digest and confirmed_at is not null
            and (digest_at is null or digest_at < :since) and account_id > :after order by account_id limit :most""")
    List<MailChoice> withoutDigestSince(Instant since, UUID after, int most);
}
