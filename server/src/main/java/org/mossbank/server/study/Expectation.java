package org.mossbank.server.study;

import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import java.time.Instant;
import org.mossbank.server.ids.AccountId;

/** What one person expected before they saw anything. */
@Entity
class Expectation {
    @EmbeddedId
    private Membership.Key key;

    private String expects;
    private String usesToday;
    private Instant declaredAt;

    @SuppressWarnings("NullAway.Init")
    protected Expectation() {}

    static Expectation of(Membership.Key key) {
        Expectation expectation = new Expectation();
        expectation.key = key;
        return expectation;
    }

    void declare(String newExpects, String newUsesToday, Instant now) {
        expects = newExpects;
        usesToday = newUsesToday;
        declaredAt = now;
    }

    AccountId accountId() {
        return key.accountId();
    }

    Declared view() {
        return new Declared(key.accountId(), expects, usesToday, declaredAt);
    }
}
