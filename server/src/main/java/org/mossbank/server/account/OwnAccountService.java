package org.mossbank.server.account;

import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.shared.Problem;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.support.TransactionTemplate;

/** What a person does with their own account. */
@Service
class OwnAccountService {
    private final AccountRepository accounts;
    private final OneTimeLinkRepository links;
    private final Sessions sessions;
    private final Passwords passwords;
    private final SignInLimit limit;
    private final CurrentAccount current;
    private final TransactionTemplate transactions;
    private final Audit audit;

    OwnAccountService(
            AccountRepository accounts,
            OneTimeLinkRepository links,
            Sessions sessions,
            Passwords passwords,
            SignInLimit limit,
            CurrentAccount current,
            TransactionTemplate transactions,
            Audit audit) {
        this.accounts = accounts;
        this.links = links;
        this.sessions = sessions;
        this.passwords = passwords;
        this.limit = limit;
        this.current = current;
        this.transactions = transactions;
        this.audit = audit;
    }

    /**
     * @param otherSessions how many of them are elsewhere; for pages of the release before
     * @param sessions      the browsers and devices in which the person is signed in, this one first
     */
    record OwnAccount(
            AccountView account, int otherSessions, Preferences preferences, List<Sessions.OwnSession> sessions) {}

    @PreAuthorize("isAuthenticated()")
    public OwnAccount own(String session) {
        Account account = account();
        List<Sessions.OwnSession> own = sessions.of(account.signInName(), session);
        return new OwnAccount(account.view(), Math.max(0, own.size() - 1), account.preferences(), own);
    }

    record WriteOwn(
            @NotBlank @Size(max = Accounts.LONGEST_NAME) String displayName,
            @NotNull @Valid Preferences preferences) {}

    /** Changes how one is called, and what one prefers. What others wrote down before keeps the name of then. */
    @PreAuthorize("isAuthenticated()")
    public OwnAccount write(WriteOwn request, String session) {
        transactions.executeWithoutResult(status -> {
            Account own = accounts.lock(current.id()).orElseThrow();
            String name = request.displayName().strip();
            if (!own.view().displayName().equals(name)) {
                audit.keep(AuditSort.NAME_CHANGED, own.view().displayName() + ", now " + name);
                own.rename(name);
            }
            own.prefer(request.preferences());
        });
        return own(session);
    }

    record ChangePassword(
            @NotBlank @Size(max = 200) String current,
            @NotBlank @Size(max = 200) String password) {
        /** Without the passwords, so that no log can hold them. */
        @Override
        public String toString() {
            return "ChangePassword[]";
        }
    }

    /**
     * Sets another password, and signs the person out everywhere else.
     *
     * @throws Problem 400 if the current one is wrong, or the new one will not do; 429 after too many wrong ones
     */
    @PreAuthorize("isAuthenticated()")
    public OwnAccount changePassword(ChangePassword request, String session) {
        Account account = account();
        requirePassword(account, request.current(), "current");
        Passwords.check(request.password(), account.signInName(), account.view().displayName());
        String hash = passwords.hash(request.password());
        transactions.executeWithoutResult(status -> {
            accounts.lock(account.id()).orElseThrow().change(hash);
            links.deleteByAccountId(account.id());
            sessions.endOthers(account.signInName(), session);
            audit.keep(AuditSort.PASSWORD_SET, "");
        });
        return own(session);
    }

    record Prove(@NotBlank @Size(max = 200) String password) {
        /** Without the password, so that no log can hold it. */
        @Override
        public String toString() {
            return "Prove[]";
        }
    }

    /** @throws Problem 400 if it is not their password; 429 after too many wrong ones */
    @PreAuthorize("isAuthenticated()")
    public void prove(Prove request) {
        requirePassword(account(), request.password(), "password");
    }

    /** Whoever found a browser open guesses no more often than whoever signs in. */
    private void requirePassword(Account account, String password, String field) {
        SignInLimit.Try attempt = limit.fromKnownDevice("own:" + account.id(), account.signInName(), "");
        if (!passwords.matches(password, account.passwordHash())) {
            attempt.wasWrong();
            audit.keep(AuditSort.SIGN_IN_REFUSED, "");
            throw Problem.invalid(field, "is not your password");
        }
        attempt.wasRight();
    }

    @PreAuthorize("isAuthenticated()")
    public OwnAccount signOutElsewhere(String session) {
        transactions.executeWithoutResult(status -> {
            sessions.endOthers(account().signInName(), session);
            audit.keep(AuditSort.SIGNED_OUT_ELSEWHERE, "");
        });
        return own(session);
    }

    /** Signs the person out in one other browser; what has ended already stays ended. */
    @PreAuthorize("isAuthenticated()")
    public OwnAccount signOut(String handle, String session) {
        transactions.executeWithoutResult(status -> {
            sessions.end(account().signInName(), handle);
            audit.keep(AuditSort.SIGNED_OUT_ELSEWHERE, "");
        });
        return own(session);
    }

    private Account account() {
        return accounts.findById(current.id()).orElseThrow(() -> Problem.notFound("This account"));
    }
}
