package org.mossbank.server.account;

import org.mossbank.server.ids.AccountId;

/** A one-time link for somebody who has no password yet, shown once to the lead to pass on. */
public record Invitation(AccountId accountId, String name, String signInName, String token) {
    /** Without the token, so that no log can hold it. */
    @Override
    public String toString() {
        return "Invitation[" + signInName + "]";
    }
}
