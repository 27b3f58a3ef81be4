package org.mossbank.server.study.people;

import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.time.Instant;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.study.Declared;

/** What one person expected before they saw anything. */
@Entity
public class Expectation {
    @EmbeddedId
    private Membership.Key key;

    private String expects;
    private String usesToday;
    private Instant declaredAt;

    @SuppressWarnings("NullAway.Init")
    protected Expectation() {}

    public static Expectation of(Membership.Key key) {
        Expectation expectation = new Expectation();
        expectation.key = key;
        return expectation;
    }

    public void declare(String newExpects, String newUsesToday, Instant now) {
        expects = newExpects;
        usesToday = newUsesToday;
        declaredAt = now;
    }

    public AccountId accountId() {
        return key.accountId();
    }

    public Declared view() {
        return new Declared(key.accountId(), expects, usesToday, declaredAt);
    }
}
