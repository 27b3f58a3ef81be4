package org.mossbank.server.account;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.util.Collections;
import java.util.List;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.ids.AccountId;
import org.springframework.http.HttpHeaders;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.authentication.session.SessionAuthenticationStrategy;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.stereotype.Component;
import org.springframework.web.util.WebUtils;

/** Lets somebody in who has shown who they are: a session with a new id, a new token against forged requests, a known device. */
@Component
public class SessionOpener {
    /** What names begin with that a session keeps of its person. */
    private static final String OF_A_PERSON = "mossbank.";

    private final AccountRepository accounts;
    private final KnownDevices devices;
    private final SessionAuthenticationStrategy strategy;
    private final SecurityContextRepository contexts;
    private final Audit audit;

    SessionOpener(
            AccountRepository accounts,
            KnownDevices devices,
            SessionAuthenticationStrategy strategy,
            SecurityContextRepository contexts,
            Audit audit) {
        this.accounts = accounts;
        this.devices = devices;
        this.strategy = strategy;
        this.contexts = contexts;
        this.audit = audit;
    }

    static SignInService.Origin origin(HttpServletRequest http) {
        Cookie mark = WebUtils.getCookie(http, KnownDevices.COOKIE);
        return new SignInService.Origin(http.getRemoteAddr(), mark == null ? null : mark.getValue());
    }

    /** From now on the browser is this person's. */
    public void open(AccountId id, HttpServletRequest http, HttpServletResponse response) {
        Account account = accounts.findById(id).orElseThrow();
        audit.keepOf(account.signInName(), AuditSort.SIGNED_IN, "");
        var mark = devices.mark(id, origin(http).deviceMark(), http.isSecure());
        response.addHeader(HttpHeaders.SET_COOKIE, mark.toString());
        var authentication = UsernamePasswordAuthenticationToken.authenticated(
                new SignedIn(id, account.signInName()), null, List.of());
        strategy.onAuthentication(authentication, http, response);
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(authentication);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, http, response);
        HttpSession session = http.getSession();
        // Whoever was in this browser before may have shown who they are, or have begun a way to a provider: that was
        // them.
        Collections.list(session.getAttributeNames()).stream()
                .filter(name -> name.startsWith(OF_A_PERSON))
                .forEach(session::removeAttribute);
        session.setAttribute(Sessions.ADDRESS, http.getRemoteAddr());
        session.setAttribute(Sessions.DEVICE, Devices.named(http.getHeader(HttpHeaders.USER_AGENT)));
    }
}
