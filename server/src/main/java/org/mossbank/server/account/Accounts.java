package org.mossbank.server.account;

import java.time.Clock;
import java.time.ZoneId;
import java.util.Collection;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.Sha256;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** Accounts, for other modules. */
@Service
@Transactional(readOnly = true)
public class Accounts {
    /** What a sign-in name looks like, as a regular expression over all of it. */
    public static final String SIGN_IN_NAME = "[a-z0-9][a-z0-9._-]{0,63}";

    /** The same in words. */
    public static final String SIGN_IN_NAME_RULE =
            "must be lower-case letters, digits, dots, lines, and start with a letter or digit";

    /** Characters of a sign-in name. */
    public static final int LONGEST_SIGN_IN_NAME = 64;

    /** Characters of a name as shown. */
    public static final int LONGEST_NAME = 200;

    private final AccountRepository accounts;
    private final OneTimeLinks links;
    private final Passwords passwords;
    private final Clock clock;
    private final Audit audit;

    Accounts(AccountRepository accounts, OneTimeLinks links, Passwords passwords, Audit audit, Clock clock) {
        this.accounts = accounts;
        this.links = links;
        this.passwords = passwords;
        this.audit = audit;
        this.clock = clock;
    }

    /** How many people there are. */
    @SystemOnly
    public long count() {
        return accounts.count();
    }

    @SystemOnly
    public Optional<AccountView> find(String signInName) {
        return accounts.findBySignInName(signInName).map(Account::view);
    }

    /** Accounts by sign-in name; those there are. */
    @SystemOnly
    public Map<String, AccountView> bySignInName(Collection<String> signInNames) {
        return accounts.findBySignInNameIn(signInNames).stream()
                .map(Account::view)
                .collect(Collectors.toMap(AccountView::signInName, Function.identity()));
    }

    /** Every account asked for; the ids must exist. */
    @SystemOnly
    public Map<AccountId, AccountView> byId(Collection<AccountId> ids) {
        return accounts.findAllById(ids).stream()
                .map(Account::view)
                .collect(Collectors.toMap(AccountView::id, Function.identity()));
    }

    /** In which zone each reads times: the one they chose, or else the server's. */
    @SystemOnly
    public Map<AccountId, ZoneId> zones(Collection<AccountId> ids) {
        return accounts.findAllById(ids).stream()
                .collect(Collectors.toMap(
                        Account::id,
                        a -> Optional.ofNullable(a.preferences().timeZone())
                                .map(ZoneId::of)
                                .orElseGet(ZoneId::systemDefault)));
    }

    /**
     * A one-time link was used; told within the same transaction.
     *
     * @param tokenHash SHA-256 of its token
     */
    public record LinkUsed(byte[] tokenHash) {}

    /**
     * Somebody who is to belong to a study.
     *
     * @param invited whether whoever asks for them is who invited them, now or before; anybody else's account is asked
     */
    public record Found(AccountView account, boolean invited) {}

    /**
     * Finds the account with this sign-in name, or makes one without a password that this person invited.
     */
    @SystemOnly
    @Transactional
    public Found findOrInvite(String signInName, String displayName, AccountId inviter) {
        Account account = accounts.findBySignInName(signInName).orElseGet(() -> {
            audit.keep(AuditSort.ACCOUNT_MADE, signInName);
            return accounts.save(Account.of(signInName, displayName, false, inviter, clock.instant()));
        });
        return new Found(account.view(), account.isInvitedBy(inviter));
    }

    /** Makes the first account: it may bring in studies, and looks after all others. */
    @SystemOnly
    @Transactional
    public AccountView createLead(String signInName, String displayName) {
        Account first = accounts.save(Account.of(signInName, displayName, true, null, clock.instant()));
        first.letAdminister(true);
        audit.keepOf("", AuditSort.ACCOUNT_MADE, signInName);
        audit.keepOf("", AuditSort.ADMINISTRATOR_MADE, signInName);
        return first.view();
    }

    /** What is kept of a password; slow, so it is worked out before a transaction begins. */
    @SystemOnly
    @Transactional(propagation = Propagation.NEVER)
    public String hashed(String password) {
        return passwords.hash(password);
    }

    /** Sets a password without a link; for the sign-ins of the demo. */
    @SystemOnly
    @Transactional
    public void setPassword(AccountId account, String passwordHash) {
        Account found = accounts.findById(account).orElseThrow();
        found.setUp(found.view().displayName(), passwordHash);
    }

    /**
     * Makes a one-time link for somebody; its token is kept nowhere. Earlier links to them end.
     *
     * @param inviter who asks for it; only whoever invited the person gets one
     * @throws Problem 409 if somebody else invited them, or they may begin studies of their own
     */
    @SystemOnly
    @Transactional
    public Invitation invite(AccountId account, AccountId inviter) {
        Account owner = accounts.lock(account).orElseThrow();
        if (!owner.isInvitedBy(inviter) || owner.view().mayBringIn()) {
            throw new Problem(
                    ProblemType.HAS_PASSWORD,
                    "Somebody else invited this person, or they have studies of their own. The administrator can make a link for them.");
        }
        if (!owner.isActive()) {
            throw new Problem(
                    ProblemType.ACCOUNT_DEACTIVATED, "This person has left. The administrator can let them come back.");
        }
        audit.keep(AuditSort.LINK_MADE, owner.signInName());
        return links.make(owner);
    }

    /** Ends every link to somebody who was taken out, unless another person's invitation made it. */
    @SystemOnly
    @Transactional
    public void endLinks(AccountId account, AccountId inviter) {
        if (accounts.findById(account).filter(a -> a.isInvitedBy(inviter)).isPresent()) {
            links.endAll(account);
        }
    }

    /** Lets a token that was made elsewhere serve as a one-time link. */
    @SystemOnly
    @Transactional
    public void acceptToken(AccountId account, String token) {
        Account found = accounts.findById(account).orElseThrow();
        if (found.view().canSignIn()) {
            throw new Problem(ProblemType.HAS_PASSWORD, "This person can sign in already.");
        }
        links.accept(found, token);
    }

    static byte[] hash(String token) {
        return Sha256.of(token);
    }
}
