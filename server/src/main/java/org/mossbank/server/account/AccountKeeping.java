package org.mossbank.server.account;

import java.time.Clock;
import java.util.List;
import java.util.Locale;
import java.util.function.Consumer;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What an administrator does with accounts. At least one administrator always stays. */
@Service
@Transactional
public class AccountKeeping {
    /** Leaves room for a number. */
    private static final int LONGEST_WISHED = 50;

    private final AccountRepository accounts;
    private final OneTimeLinks links;
    private final Sessions sessions;
    private final Audit audit;
    private final Clock clock;
    private final ApplicationEventPublisher events;

    AccountKeeping(
            AccountRepository accounts,
            OneTimeLinks links,
            Sessions sessions,
            Audit audit,
            Clock clock,
            ApplicationEventPublisher events) {
        this.events = events;
        this.accounts = accounts;
        this.links = links;
        this.sessions = sessions;
        this.audit = audit;
        this.clock = clock;
    }

    /**
     * By sign-in name.
     *
     * @param after sign-in name after which the page begins; may be empty
     * @param part  of a name or sign-in name; may be empty
     */
    @SystemOnly
    @Transactional(readOnly = true)
    public List<AccountView> page(String after, String part, int limit) {
        return accounts.page(after, part.strip().toLowerCase(Locale.ROOT), Limit.of(limit)).stream()
                .map(Account::view)
                .toList();
    }

    /** @throws Problem 404 if there is none */
    @SystemOnly
    @Transactional(readOnly = true)
    public AccountView get(AccountId account) {
        return accounts.findById(account).orElseThrow(AccountKeeping::notFound).view();
    }

    /** @throws Problem 400 if the name is taken */
    @SystemOnly
    public AccountView make(String signInName, String displayName, boolean mayBringIn) {
        if (accounts.findBySignInName(signInName).isPresent()) {
            throw Problem.invalid("signInName", "is taken");
        }
        Account made = accounts.save(Account.of(signInName, displayName.strip(), mayBringIn, null, clock.instant()));
        audit.keep(AuditSort.ACCOUNT_MADE, signInName);
        if (mayBringIn) {
            audit.keep(AuditSort.MAY_BEGIN_STUDIES, signInName);
        }
        return made.view();
    }

    /**
     * Makes an account for somebody whom a provider of sign-ins knows. Where the name is taken, a number is added: who has
     * it already is somebody else.
     *
     * @param wished what they are called there; made into a sign-in name
     */
    @SystemOnly
    public AccountView makeFor(String wished, String displayName) {
        String plain = wished.toLowerCase(Locale.ROOT)
                .replaceAll("@.*", "")
                .replaceAll("[^a-z0-9._-]", "")
                .replaceAll("^[^a-z0-9]+", "");
        String name = plain.isEmpty() ? "guest" : plain.substring(0, Math.min(plain.length(), LONGEST_WISHED));
        String free = name;
        for (int i = 2; accounts.findBySignInName(free).isPresent(); i++) {
            free = name + "-" + i;
        }
        return make(free, displayName, false);
    }

    /** Whether some provider of sign-ins knows somebody. */
    @SystemOnly
    public void identify(AccountId account, boolean known) {
        change(account, found -> found.identify(known));
    }

    /** @throws Problem 404 unless the link can be used */
    @SystemOnly
    @Transactional(readOnly = true)
    public void requireLink(String token) {
        links.owner(token);
    }

    /**
     * Uses a link without a password, and with it every other one of this person.
     *
     * @param tokenHash SHA-256 of its token
     * @throws Problem 404 unless it can be used
     */
    @SystemOnly
    public AccountView useLink(byte[] tokenHash) {
        return links.use(tokenHash).view();
    }

    /** Lets somebody begin and bring in studies, or not any more; studies they lead stay theirs. */
    @SystemOnly
    public AccountView letBeginStudies(AccountId account, boolean may) {
        return change(account, found -> {
            if (found.view().mayBringIn() != may) {
                found.letBeginStudies(may);
                audit.keep(may ? AuditSort.MAY_BEGIN_STUDIES : AuditSort.MAY_NOT_BEGIN_STUDIES, found.signInName());
            }
        });
    }

    /** @throws Problem 409 if nobody could administer any more */
    @SystemOnly
    public AccountView letAdminister(AccountId account, boolean may) {
        List<Account> administrators = accounts.lockAdministrators();
        return change(account, found -> {
            if (found.view().administrator() == may) {
                return;
            }
            if (!may) {
                requireAnother(administrators, found);
            }
            found.letAdminister(may);
            audit.keep(may ? AuditSort.ADMINISTRATOR_MADE : AuditSort.ADMINISTRATOR_NO_MORE, found.signInName());
        });
    }

    /** The same, but that the last administrator stays one without a word. */
    @SystemOnly
    public void letAdministerIfOthersDo(AccountId account, boolean may) {
        boolean last = accounts.lockAdministrators().stream().allMatch(a -> a.id().equals(account));
        if (may || !last) {
            letAdminister(account, may);
        }
    }

    /** Somebody left, or came back; told within the same transaction. */
    public record LeftOrCame(AccountId account) {}

    /**
     * Ends what somebody who leaves could do: they are signed out, their links end, and they cannot sign in. What they
     * graded and wrote stays.
     *
     * @throws Problem 409 if nobody could administer any more
     */
    @SystemOnly
    public AccountView deactivate(AccountId account) {
        List<Account> administrators = accounts.lockAdministrators();
        return change(account, found -> {
            if (found.isActive()) {
                requireAnother(administrators, found);
                found.deactivate(clock.instant());
                links.endAll(account);
                sessions.endAll(found.signInName());
                audit.keep(AuditSort.ACCOUNT_DEACTIVATED, found.signInName());
                accounts.flush();
                events.publishEvent(new LeftOrCame(account));
            }
        });
    }

    @SystemOnly
    public AccountView reactivate(AccountId account) {
        return change(account, found -> {
            if (!found.isActive()) {
                found.reactivate();
                audit.keep(AuditSort.ACCOUNT_REACTIVATED, found.signInName());
                accounts.flush();
                events.publishEvent(new LeftOrCame(account));
            }
        });
    }

    /**
     * A one-time link for anybody, also for whoever has lost their password; earlier ones end.
     *
     * @throws Problem 409 if they have left
     */
    @SystemOnly
    public Invitation link(AccountId account) {
        Account found = accounts.lock(account).orElseThrow(AccountKeeping::notFound);
        if (!found.isActive()) {
            throw new Problem(ProblemType.ACCOUNT_DEACTIVATED, "This person has left. Let them come back first.");
        }
        audit.keep(AuditSort.LINK_MADE, found.signInName());
        return links.make(found);
    }

    private static void requireAnother(List<Account> administrators, Account one) {
        if (administrators.stream().allMatch(a -> a.id().equals(one.id()))
                && one.view().administrator()) {
            throw new Problem(
                    ProblemType.LAST_ADMINISTRATOR, "Nobody else could administer. Let somebody else do so first.");
        }
    }

    private AccountView change(AccountId account, Consumer<Account> change) {
        Account found = accounts.lock(account).orElseThrow(AccountKeeping::notFound);
        change.accept(found);
        return found.view();
    }

    private static Problem notFound() {
        return Problem.notFound("This account");
    }
}
