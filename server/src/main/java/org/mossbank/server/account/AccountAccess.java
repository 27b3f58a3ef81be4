package org.mossbank.server.account;

import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Who may look after accounts and settings. An administrator sees no study's content without being let in there. */
@Component("accountAccess")
@Transactional(readOnly = true)
public class AccountAccess {
    private final AccountRepository accounts;
    private final CurrentAccount current;

    AccountAccess(AccountRepository accounts, CurrentAccount current) {
        this.accounts = accounts;
        this.current = current;
    }

    public boolean isAdministrator() {
        return own().map(Account::view)
                .filter(a -> a.administrator() && a.active())
                .isPresent();
    }

    private Optional<Account> own() {
        return accounts.findById(current.id());
    }
}
