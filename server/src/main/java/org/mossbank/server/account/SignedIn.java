package org.mossbank.server.account;

import java.io.Serializable;
import java.security.Principal;
import org.mossbank.server.ids.AccountId;

/** Who a session belongs to. */
record SignedIn(AccountId accountId, String signInName) implements Principal, Serializable {
    @Override
    public String getName() {
        return signInName;
    }
}
