package org.mossbank.server.account;

import java.util.UUID;

/** A one-time link for somebody who has no password yet, shown once to the lead to pass on. */
public record Invitation(UUID accountId, String name, String signInName, String token) {
    /** Without the token, so that no log can hold it. */
    @Override
    public String toString() {
        return "Invitation[" + signInName + "]";
    }
}
