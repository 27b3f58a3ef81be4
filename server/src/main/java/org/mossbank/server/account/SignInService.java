package org.mossbank.server.account;

import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.ResponseCookie;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/**
 * Signing in with a password, and setting one with a one-time link. No transaction is held here: what is read and written
 * has its own, before and after the slow hash.
 */
@Service
class SignInService {
    private final AccountRepository accounts;
    private final OneTimeLinks links;
    private final SignInLimit limit;
    private final KnownDevices devices;
    private final Passwords passwords;
    private final CurrentAccount current;
    private final Audit audit;

    SignInService(
            AccountRepository accounts,
            OneTimeLinks links,
            SignInLimit limit,
            KnownDevices devices,
            Passwords passwords,
            CurrentAccount current,
            Audit audit) {
        this.accounts = accounts;
        this.links = links;
        this.limit = limit;
        this.devices = devices;
        this.passwords = passwords;
        this.current = current;
        this.audit = audit;
    }

    /**
     * Where a request comes from.
     *
     * @param deviceMark what an earlier sign-in left there
     */
    record Origin(String address, @Nullable String deviceMark, boolean isSecure) {}

    /** Who came in, and the mark to keep at their device. */
    record Entered(SignedIn who, ResponseCookie deviceMark) {}

    /**
     * @throws Problem 401 if name or password is wrong, without saying which; 429 after too many wrong ones
     */
    @PreAuthorize("permitAll()")
    public Entered signIn(SignIn request, Origin origin) {
        String name = request.name().strip().toLowerCase(Locale.ROOT);
        Optional<Account> account = accounts.findBySignInName(name);
        SignInLimit.Try attempt = account.flatMap(a -> devices.of(a.id(), origin.deviceMark()))
                .map(device -> limit.fromKnownDevice(device, name, origin.address()))
                .orElseGet(() -> limit.fromElsewhere(name, origin.address()));
        // Whoever has left is told no more than whoever was never here.
        if (!passwords.matches(
                request.password(), account.filter(Account::isActive).flatMap(Account::passwordHash))) {
            attempt.wasWrong();
            audit.keepOf(account.map(Account::signInName).orElse(""), AuditSort.SIGN_IN_REFUSED, "");
            throw new Problem(ProblemType.WRONG_NAME_OR_PASSWORD, "No account has this name and password.");
        }
        attempt.wasRight();
        return entered(account.orElseThrow(), origin);
    }

    /** Who is signed in, if anybody. */
    @PreAuthorize("permitAll()")
    public Optional<Account> current() {
        return current.ifSignedIn().flatMap(accounts::findById);
    }

    /** Whom a link is for. */
    @PreAuthorize("permitAll()")
    public AccountView inspect(String token) {
        return links.owner(token).view();
    }

    /** Sets the password; the link, and every other one of this person, is used up. */
    @PreAuthorize("permitAll()")
    public Entered use(UseLink request, Origin origin) {
        Account owner = links.owner(request.token());
        String name = request.displayName().strip();
        Passwords.check(request.password(), owner.signInName(), name);
        return entered(links.use(request.token(), name, passwords.hash(request.password())), origin);
    }

    private Entered entered(Account account, Origin origin) {
        audit.keepOf(account.signInName(), AuditSort.SIGNED_IN, "");
        return new Entered(
                new SignedIn(account.id(), account.signInName()),
                devices.mark(account.id(), origin.deviceMark(), origin.isSecure()));
    }
}
