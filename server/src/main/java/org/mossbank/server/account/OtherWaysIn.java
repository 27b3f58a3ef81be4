package org.mossbank.server.account;

import jakarta.servlet.http.HttpServletRequest;
import java.util.Optional;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;

/** Ways to sign in beside passwords; a later module adds them. */
public interface OtherWaysIn {
    void addTo(HttpSecurity http) throws Exception;

    /** Where the browser goes to sign out of what it signed in with, while its session is still there. */
    Optional<String> signOutAddress(HttpServletRequest request);
}
