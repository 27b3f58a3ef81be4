package org.mossbank.server.administration;

import jakarta.validation.constraints.Email;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.AccountKeeping;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.account.Accounts;
import org.mossbank.server.account.Actor;
import org.mossbank.server.account.Invitation;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.mail.MailOrder;
import org.mossbank.server.mail.MailSort;
import org.mossbank.server.mail.Mails;
import org.mossbank.server.shared.Problem;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What an administrator does. */
@Service
@Transactional
class AdministrationService {
    private static final int PAGE = 50;

    private final AccountKeeping accounts;
    private final Mails mails;
    private final Actor actor;

    AdministrationService(AccountKeeping accounts, Mails mails, Actor actor) {
        this.accounts = accounts;
        this.mails = mails;
        this.actor = actor;
    }

    /** @param next what is sent as {@code after} to go on; absent at the end */
    record AccountPage(List<AccountView> accounts, @Nullable String next) {}

    @PreAuthorize("@accountAccess.isAdministrator()")
    @Transactional(readOnly = true)
    public AccountPage page(String after, String part) {
        List<AccountView> found = accounts.page(after, part, PAGE + 1);
        List<AccountView> page = found.subList(0, Math.min(PAGE, found.size()));
        return new AccountPage(page, found.size() > PAGE ? page.get(PAGE - 1).signInName() : null);
    }

    record MakeAccount(
            @NotNull @Pattern(regexp = Accounts.SIGN_IN_NAME, message = Accounts.SIGN_IN_NAME_RULE)
            String signInName,

            @NotBlank @Size(max = Accounts.LONGEST_NAME) String name,
            boolean mayBringIn,
            @Email @Size(max = 254) @Nullable String mail) {}

    /** @param invitation how they get in; shown this once, and absent where it goes to them by mail */
    record MadeAccount(AccountView account, @Nullable Invitation invitation) {}

    /**
     * @param request where an address is named and mail goes out, the invitation goes there
     * @throws Problem 400 if the name is taken
     */
    @PreAuthorize("@accountAccess.isAdministrator()")
    public MadeAccount make(MakeAccount request) {
        AccountView made = accounts.make(request.signInName(), request.name(), request.mayBringIn());
        boolean mailed = request.mail() != null && invitesByMail(made, request.mail());
        return new MadeAccount(made, mailed ? null : accounts.link(made.id()));
    }

    private boolean invitesByMail(AccountView made, String address) {
        if (!mails.isOn()) {
            return false;
        }
        mails.reach(made.id(), address.strip());
        return mails.order(new MailOrder(made.id(), MailSort.INVITATION, null, actor.name()));
    }

    /**
     * @param mayBringIn    whether they may begin and bring in studies
     * @param administrator whether they look after accounts
     */
    record SetRights(boolean mayBringIn, boolean administrator) {}

    /** @throws Problem 404 if there is no such account; 409 if nobody could administer any more */
    @PreAuthorize("@accountAccess.isAdministrator()")
    public AccountView rights(AccountId account, SetRights request) {
        accounts.letBeginStudies(account, request.mayBringIn());
        return accounts.letAdminister(account, request.administrator());
    }

    @PreAuthorize("@accountAccess.isAdministrator()")
    public AccountView deactivate(AccountId account) {
        return accounts.deactivate(account);
    }

    @PreAuthorize("@accountAccess.isAdministrator()")
    public AccountView reactivate(AccountId account) {
        return accounts.reactivate(account);
    }

    @PreAuthorize("@accountAccess.isAdministrator()")
    public Invitation link(AccountId account) {
        return accounts.link(account);
    }
}
