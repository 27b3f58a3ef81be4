package org.mossbank.server.account;

import java.time.Clock;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Links with which one person sets a password, once. */
@Component
@Transactional(readOnly = true)
class OneTimeLinks {
    private final OneTimeLinkRepository links;
    private final AccountRepository accounts;
    private final Sessions sessions;
    private final Clock clock;

    OneTimeLinks(OneTimeLinkRepository links, AccountRepository accounts, Sessions sessions, Clock clock) {
        this.links = links;
        this.accounts = accounts;
        this.sessions = sessions;
        this.clock = clock;
    }

    /** @throws Problem 404 unless the link can be used */
    public Account owner(String token) {
        return accounts.findById(live(token).accountId()).orElseThrow(OneTimeLinks::usedOrExpired);
    }

    private OneTimeLink live(String token) {
        return links.findByTokenHashAndExpiresAtAfter(Accounts.hash(token), clock.instant())
                .orElseThrow(OneTimeLinks::usedOrExpired);
    }

    /**
     * Uses a link, and with it every other one of this person.
     *
     * @throws Problem 404 unless it can be used; of several who try at the same time, one can
     */
    @Transactional
    public Account use(String token, String displayName, String passwordHash) {
        Account owner = accounts.lock(live(token).accountId()).orElseThrow(OneTimeLinks::usedOrExpired);
        if (links.deleteLive(Accounts.hash(token), clock.instant()) == 0) {
            throw usedOrExpired();
        }
        links.deleteByAccountId(owner.id());
        owner.setUp(displayName, passwordHash);
        sessions.endAll(owner.signInName());
        return owner;
    }

    private static Problem usedOrExpired() {
        return new Problem(
                ProblemType.LINK_USED_OR_EXPIRED,
                "This link was used already, has expired or was never one. The lead can make a new one.");
    }
}
