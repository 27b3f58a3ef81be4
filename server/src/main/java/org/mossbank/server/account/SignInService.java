package org.mossbank.server.account;

import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Signing in with a password, and setting one with a one-time link. */
@Service
@Transactional(readOnly = true)
class SignInService {
    /** Bcrypt takes no more than this. */
    private static final int LONGEST_PASSWORD_BYTES = 72;

    private final AccountRepository accounts;
    private final OneTimeLinkRepository links;
    private final SignInLimit limit;
    private final PasswordEncoder passwords;
    private final CurrentAccount current;
    private final Clock clock;
    private final String hashOfNobody;

    SignInService(
            AccountRepository accounts,
            OneTimeLinkRepository links,
            SignInLimit limit,
            PasswordEncoder passwords,
            CurrentAccount current,
            Clock clock) {
        this.accounts = accounts;
        this.links = links;
        this.limit = limit;
        this.passwords = passwords;
        this.current = current;
        this.clock = clock;
        this.hashOfNobody = String.valueOf(passwords.encode("nobody"));
    }

    /**
     * @throws Problem 401 if name or password is wrong, without saying which; 429 after too many wrong ones
     */
    @PreAuthorize("permitAll()")
    public SignedIn signIn(SignIn request, String address) {
        String name = request.name().strip().toLowerCase(Locale.ROOT);
        limit.check(name, address);
        Optional<Account> account = accounts.findBySignInName(name);
        // An unknown name costs as much time as a wrong password, so that names cannot be told apart.
        String hash = account.flatMap(Account::passwordHash).orElse(hashOfNobody);
        boolean right = passwords.matches(request.password(), hash)
                && account.flatMap(Account::passwordHash).isPresent();
        if (!right) {
            limit.wrongPassword(name, address);
            throw new Problem(ProblemType.WRONG_NAME_OR_PASSWORD, "No account has this name and password.");
        }
        limit.rightPassword(name, address);
        return principal(account.orElseThrow());
    }

    /** Who is signed in, if anybody. */
    @PreAuthorize("permitAll()")
    public Optional<AccountView> current() {
        return current.ifSignedIn().flatMap(accounts::findById).map(Account::view);
    }

    /** Whom a link is for. */
    @PreAuthorize("permitAll()")
    public AccountView inspect(String token) {
        return accountOf(token).view();
    }

    /** Sets the password; the link, and every other one of this person, is used up. */
    @PreAuthorize("permitAll()")
    @Transactional
    public SignedIn use(UseLink request) {
        if (request.password().getBytes(StandardCharsets.UTF_8).length > LONGEST_PASSWORD_BYTES) {
            throw new Problem(ProblemType.INVALID_REQUEST, "The password is too long.")
                    .withErrors(List.of(new Problem.FieldError(
                            "password", "must not be longer than " + LONGEST_PASSWORD_BYTES + " bytes")));
        }
        Account account = accountOf(request.token());
        account.setUp(request.displayName().strip(), String.valueOf(passwords.encode(request.password())));
        links.deleteByAccountId(account.id());
        return principal(account);
    }

    private Account accountOf(String token) {
        return links.findByTokenHashAndExpiresAtAfter(Accounts.hash(token), clock.instant())
                .flatMap(link -> accounts.findById(link.accountId()))
                .orElseThrow(() -> new Problem(
                        ProblemType.LINK_USED_OR_EXPIRED,
                        "This link was used already, has expired or was never one. The lead can make a new one."));
    }

    private static SignedIn principal(Account account) {
        return new SignedIn(account.id(), account.signInName());
    }
}
