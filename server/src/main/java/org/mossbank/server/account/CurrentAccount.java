package org.mossbank.server.account;

import java.util.Optional;
import org.mossbank.server.ids.AccountId;
import org.springframework.security.authentication.InsufficientAuthenticationException;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.stereotype.Component;

/** Who is asking. */
@Component
public class CurrentAccount {
    /** @throws InsufficientAuthenticationException if nobody is signed in */
    public AccountId id() {
        return ifSignedIn().orElseThrow(() -> new InsufficientAuthenticationException("Nobody is signed in."));
    }

    public Optional<AccountId> ifSignedIn() {
        Authentication authentication = SecurityContextHolder.getContext().getAuthentication();
        return authentication != null && authentication.getPrincipal() instanceof SignedIn signedIn
                ? Optional.of(signedIn.accountId())
                : Optional.empty();
    }
}
