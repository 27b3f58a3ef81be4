package org.mossbank.server.account;

import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.beans.factory.annotation.Value;
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
    private final boolean takesPasswords;

    SignInService(
            AccountRepository accounts,
            OneTimeLinks links,
            SignInLimit limit,
            KnownDevices devices,
            Passwords passwords,
            CurrentAccount current,
            Audit audit,
            @Value("${mossbank.passwords}") boolean takesPasswords) {
        this.accounts = accounts;
        this.links = links;
        this.limit = limit;
        this.devices = devices;
        this.passwords = passwords;
        this.current = current;
        this.audit = audit;
        this.takesPasswords = takesPasswords;
    }

    /**
     * Where a request comes from.
     *
     * @param deviceMark what an earlier sign-in left there
     */
    record Origin(String address, @Nullable String deviceMark) {}

    record SignIn(
            @NotBlank @Size(max = 64) String name,
            @NotBlank @Size(max = 200) String password) {
        /** Without the password, so that no log can hold it. */
        @Override
        public String toString() {
            return "SignIn[" + name + "]";
        }
    }

    record UseLink(
            @NotBlank @Size(max = 100) String token,
            @NotBlank @Size(max = Accounts.LONGEST_NAME) String displayName,
            @NotBlank @Size(max = 200) String password) {
        /** Without token and password, so that no log can hold them. */
        @Override
        public String toString() {
            return "UseLink[" + displayName + "]";
        }
    }

    /**
     * @throws Problem 403 where passwords are off; 401 if name or password is wrong, without saying which; 429 after too many wrong ones
     */
    @PreAuthorize("permitAll()")
    public Account signIn(SignIn request, Origin origin) {
        requirePasswords();
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
        return account.orElseThrow();
    }

    /** @throws Problem 403 where nobody comes in by a password */
    @PreAuthorize("permitAll()")
    public void requirePasswords() {
        if (!takesPasswords) {
            throw new Problem(ProblemType.PASSWORDS_OFF, "Here one signs in by a provider, and not with a password.");
        }
    }

    /** Whether names and passwords let anybody in. */
    @PreAuthorize("permitAll()")
    public boolean takesPasswords() {
        return takesPasswords;
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
    public Account use(UseLink request) {
        requirePasswords();
        Account owner = links.owner(request.token());
        String name = request.displayName().strip();
        Passwords.check(request.password(), owner.signInName(), name);
        return links.use(request.token(), name, passwords.hash(request.password()));
    }
}
