package org.mossbank.server.account;

import java.io.Serializable;
import java.security.Principal;
import java.util.UUID;

/** Who a session belongs to. */
record SignedIn(UUID accountId, String signInName) implements Principal, Serializable {
    @Override
    public String getName() {
        return signInName;
    }
}
