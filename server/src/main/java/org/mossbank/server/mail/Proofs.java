package org.mossbank.server.mail;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.time.ZoneOffset;
import java.util.Base64;
import java.util.Optional;
import java.util.UUID;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Sha256;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** What shows that an address is somebody's: a word that was only ever sent there. Its hash alone is kept. */
@Component
@Transactional
class Proofs {
    private static final Duration LIFE = Duration.ofDays(14);
    private static final int TOKEN_BYTES = 24;

    private final JdbcClient database;
    private final MailChoiceRepository choices;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();

    Proofs(JdbcClient database, MailChoiceRepository choices, Clock clock) {
        this.database = database;
        this.choices = choices;
        this.clock = clock;
    }

    /** Whoever used the link that was sent to an address reads what comes there. */
    @EventListener
    public void used(Accounts.LinkUsed link) {
        use(link.tokenHash());
    }

    /** A word for an address, to be sent there and nowhere else. */
    public String make(MailChoice choice) {
        byte[] bytes = new byte[TOKEN_BYTES];
        random.nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        keep(choice, token);
        return token;
    }

    /** Lets the word of a one-time link prove the address as well. */
    public void keep(MailChoice choice, String token) {
        database.sql("delete from mail_proof where account_id = ? or expires_at < ?")
                .params(choice.accountId().value(), clock.instant().atOffset(ZoneOffset.UTC))
                .update();
        database.sql("insert into mail_proof (token_hash, account_id, address, expires_at) values (?, ?, ?, ?)")
                .params(
                        Sha256.of(token),
                        choice.accountId().value(),
                        choice.address(),
                        clock.instant().plus(LIFE).atOffset(ZoneOffset.UTC))
                .update();
    }

    private record Proven(UUID account, String address) {}

    /**
     * Uses a word: the address it went to is theirs, if it still is the one they named.
     *
     * @return whose; empty if it is no such word, or is over
     */
    public Optional<AccountId> use(byte[] tokenHash) {
        Optional<Proven> proven = database.sql(
                        "delete from mail_proof where token_hash = ? and expires_at > ? returning account_id, address")
                .params(tokenHash, clock.instant().atOffset(ZoneOffset.UTC))
                .query((row, i) -> new Proven(row.getObject(1, UUID.class), row.getString(2)))
                .optional();
        return proven.flatMap(p -> choices.findById(new AccountId(p.account()))
                .filter(c -> c.address().equals(p.address()))
                .map(c -> {
                    c.confirm(clock.instant());
                    return c.accountId();
                }));
    }
}
