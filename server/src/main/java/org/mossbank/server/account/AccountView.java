package org.mossbank.server.account;

import org.mossbank.server.ids.AccountId;

/**
 * A person as others see them.
 *
 * @param mayBringIn  whether they may bring in studies
 * @param hasPassword whether they have set a password yet
 * @param canSignIn   whether they have a password, or a provider that knows them
 * @param administrator whether they look after accounts and settings
 * @param active      whether they may sign in; not once they have left
 */
public record AccountView(
        AccountId id,
        String signInName,
        String displayName,
        boolean mayBringIn,
        boolean hasPassword,
        boolean canSignIn,
        boolean administrator,
        boolean active) {

    /** The same person under another name. */
    public AccountView called(String name) {
        return new AccountView(id, signInName, name, mayBringIn, hasPassword, canSignIn, administrator, active);
    }
}
