package org.mossbank.server.account;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
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

    OwnAccountService(
            AccountRepository accounts,
            OneTimeLinkRepository links,
            Sessions sessions,
            Passwords passwords,
            SignInLimit limit,
            CurrentAccount current,
            TransactionTemplate transactions) {
        this.accounts = accounts;
        this.links = links;
        this.sessions = sessions;
        this.passwords = passwords;
        this.limit = limit;
        this.current = current;
        this.transactions = transactions;
    }

    /** @param otherSessions in how many other browsers or devices the person is signed in */
    record OwnAccount(AccountView account, int otherSessions) {}

    @PreAuthorize("isAuthenticated()")
    public OwnAccount own(String session) {
        Account account = account();
        return new OwnAccount(account.view(), sessions.countOthers(account.signInName(), session));
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
        // Whoever found a browser open guesses no more often than whoever signs in.
        SignInLimit.Try attempt = limit.fromKnownDevice("own:" + account.id(), account.signInName(), "");
        if (!passwords.matches(request.current(), account.passwordHash())) {
            attempt.wasWrong();
            throw Problem.invalid("current", "is not your password");
        }
        attempt.wasRight();
        Passwords.check(request.password(), account.signInName(), account.view().displayName());
        String hash = passwords.hash(request.password());
        transactions.executeWithoutResult(status -> {
            accounts.lock(account.id()).orElseThrow().change(hash);
            links.deleteByAccountId(account.id());
            sessions.endOthers(account.signInName(), session);
        });
        return own(session);
    }

    @PreAuthorize("isAuthenticated()")
    public OwnAccount signOutElsewhere(String session) {
        sessions.endOthers(account().signInName(), session);
        return own(session);
    }

    private Account account() {
        return accounts.findById(current.id()).orElseThrow(() -> Problem.notFound("This account"));
    }
}
