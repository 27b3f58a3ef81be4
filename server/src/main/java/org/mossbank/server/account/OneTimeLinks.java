package org.mossbank.server.account;

import java.security.SecureRandom;
import java.time.Clock;
import java.time.Duration;
import java.util.Base64;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Links with which one person sets a password, once. */
@Component
@Transactional(readOnly = true)
class OneTimeLinks {
    private static final Duration LIFE = Duration.ofDays(14);
    private static final int TOKEN_BYTES = 24;

    private final OneTimeLinkRepository links;
    private final AccountRepository accounts;
    private final Sessions sessions;
    private final Audit audit;
    private final ApplicationEventPublisher events;
    private final Clock clock;
    private final SecureRandom random = new SecureRandom();

    OneTimeLinks(
            OneTimeLinkRepository links,
            AccountRepository accounts,
            Sessions sessions,
            Audit audit,
            ApplicationEventPublisher events,
            Clock clock) {
        this.links = links;
        this.accounts = accounts;
        this.sessions = sessions;
        this.audit = audit;
        this.events = events;
        this.clock = clock;
    }

    /** @throws Problem 404 unless the link can be used */
    public Account owner(String token) {
        return accounts.findById(live(Accounts.hash(token)).accountId())
                .filter(Account::isActive)
                .orElseThrow(OneTimeLinks::usedOrExpired);
    }

    private OneTimeLink live(byte[] tokenHash) {
        return links.findByTokenHashAndExpiresAtAfter(tokenHash, clock.instant())
                .orElseThrow(OneTimeLinks::usedOrExpired);
    }

    /** The same without setting a password. */
    @Transactional
    public Account use(byte[] tokenHash) {
        Account owner = accounts.lock(live(tokenHash).accountId())
                .filter(Account::isActive)
                .orElseThrow(OneTimeLinks::usedOrExpired);
        if (links.deleteLive(tokenHash, clock.instant()) == 0) {
            throw usedOrExpired();
        }
        links.deleteByAccountId(owner.id());
        events.publishEvent(new Accounts.LinkUsed(tokenHash));
        return owner;
    }

    /**
     * Uses a link, and with it every other one of this person.
     *
     * @throws Problem 404 unless it can be used; of several who try at the same time, one can
     */
    @Transactional
    public Account use(String token, String displayName, String passwordHash) {
        Account owner = use(Accounts.hash(token));
        owner.setUp(displayName, passwordHash);
        sessions.endAll(owner.signInName());
        audit.keepOf(owner.signInName(), AuditSort.PASSWORD_SET, "by a one-time link");
        return owner;
    }

    /** Makes a link; its token is kept nowhere, and earlier ones of this person end. */
    @Transactional
    public Invitation make(Account owner) {
        links.deleteByAccountId(owner.id());
        byte[] bytes = new byte[TOKEN_BYTES];
        random.nextBytes(bytes);
        String token = Base64.getUrlEncoder().withoutPadding().encodeToString(bytes);
        accept(owner, token);
        return new Invitation(owner.id(), owner.view().displayName(), owner.signInName(), token);
    }

    /** Lets a token that was made elsewhere serve as a link. */
    @Transactional
    public void accept(Account owner, String token) {
        links.save(
                OneTimeLink.of(Accounts.hash(token), owner.id(), clock.instant().plus(LIFE)));
    }

    @Transactional
    public void endAll(AccountId account) {
        links.deleteByAccountId(account);
    }

    private static Problem usedOrExpired() {
        return new Problem(
                ProblemType.LINK_USED_OR_EXPIRED,
                "This link was used already, has expired or was never one. The lead can make a new one.");
    }
}
