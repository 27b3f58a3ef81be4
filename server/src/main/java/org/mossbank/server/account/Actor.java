package org.mossbank.server.account;

import java.time.Clock;
import java.time.Instant;
import java.util.List;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.ids.AccountId;
import org.springframework.stereotype.Component;

/** Who does something, and when: what is kept of an act. */
@Component
public class Actor {
    private final CurrentAccount current;
    private final Accounts accounts;
    private final Clock clock;

    Actor(CurrentAccount current, Accounts accounts, Clock clock) {
        this.current = current;
        this.accounts = accounts;
        this.clock = clock;
    }

    public AccountId id() {
        return current.id();
    }

    /** As others read it. */
    public String name() {
        AccountId id = id();
        return Require.known(accounts.byId(List.of(id)), id).displayName();
    }

    public Instant now() {
        return clock.instant();
    }
}
