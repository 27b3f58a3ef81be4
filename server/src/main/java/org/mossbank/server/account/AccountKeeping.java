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
import org.springframework.data.domain.Limit;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What an administrator does with accounts. At least one administrator always stays. */
@Service
@Transactional
public class AccountKeeping {
    private final AccountRepository accounts;
    private final OneTimeLinks links;
    private final Sessions sessions;
    private final Audit audit;
    private final Clock clock;

    AccountKeeping(AccountRepository accounts, OneTimeLinks links, Sessions sessions, Audit audit, Clock clock) {
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
            }
        });
    }

    @SystemOnly
    public AccountView reactivate(AccountId account) {
        return change(account, found -> {
            if (!found.isActive()) {
                found.reactivate();
                audit.keep(AuditSort.ACCOUNT_REACTIVATED, found.signInName());
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
