package org.mossbank.server.account;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.ZoneOffset;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** What the servers on one database sign with alike; made when first asked for. */
@Component
class SigningKeys {
    private static final int KEY_BYTES = 32;

    private final JdbcClient database;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();
    private final Map<String, byte[]> known = new ConcurrentHashMap<>();

    SigningKeys(JdbcClient database, Clock clock) {
        this.database = database;
        this.clock = clock;
    }

    byte[] get(String name) {
        return known.computeIfAbsent(name, this::findOrMake).clone();
    }

    private byte[] findOrMake(String name) {
        byte[] fresh = new byte[KEY_BYTES];
        random.nextBytes(fresh);
        // Of two servers that make one at the same time, the first counts.
        database.sql("insert into signing_key (name, secret, created_at) values (?, ?, ?) on conflict do nothing")
                .params(name, fresh, clock.instant().atOffset(ZoneOffset.UTC))
                .update();
        return database.sql("select secret from signing_key where name = ?")
                .param(name)
                .query(byte[].class)
                .single();
    }
}
