package org.mossbank.server.account;

import org.mossbank.server.shared.SystemOnly;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;

/**
 * Lets the first lead in. Whoever starts the server makes a token, hands it over in the environment and prints the link;
 * the server keeps only its hash. While the first lead has no password, each start may bring a new token.
 */
@Service
class FirstLead {
    private static final String SIGN_IN_NAME = "lead";

    private final Accounts accounts;
    private final String token;

    FirstLead(Accounts accounts, @Value("${mossbank.first-lead-token}") String token) {
        this.accounts = accounts;
        this.token = token;
    }

    @SystemOnly
    @EventListener(ApplicationReadyEvent.class)
    public void accept() {
        if (token.isBlank()) {
            return;
        }
        if (accounts.count() == 0) {
            accounts.createLead(SIGN_IN_NAME, "Study lead");
        }
        accounts.find(SIGN_IN_NAME)
                .filter(lead -> !lead.canSignIn())
                .ifPresent(lead -> accounts.acceptToken(lead.id(), token));
    }

    /** Whether the first lead has still to set a password. */
    @PreAuthorize("permitAll()")
    public boolean isAwaited() {
        return accounts.find(SIGN_IN_NAME).filter(lead -> !lead.canSignIn()).isPresent();
    }
}
