package org.mossbank.server.account;

import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpHeaders;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContext;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.web.authentication.session.SessionAuthenticationStrategy;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.util.WebUtils;

/** Signing in and out, and one-time links. Signing out is handled by the filter chain. */
@RestController
class SessionController {
    private final SignInService signIns;
    private final FirstLead firstLead;
    private final SessionAuthenticationStrategy sessionStrategy;
    private final SecurityContextRepository contexts;

    SessionController(
            SignInService signIns,
            FirstLead firstLead,
            SessionAuthenticationStrategy sessionStrategy,
            SecurityContextRepository contexts) {
        this.signIns = signIns;
        this.firstLead = firstLead;
        this.sessionStrategy = sessionStrategy;
        this.contexts = contexts;
    }

    /** Who is signed in, and what they prefer; without an account, nobody. */
    record SessionView(
            @Nullable AccountView account, @Nullable Preferences preferences) {}

    /** Whether the first lead has still to set a password. */
    record SetupView(boolean awaitsFirstLead) {}

    /** Whether the first lead is still awaited. */
    @GetMapping("/api/setup")
    SetupView setup() {
        return new SetupView(firstLead.isAwaited());
    }

    record LinkToken(@NotBlank @Size(max = 100) String token) {
        /** Without the token, so that no log can hold it. */
        @Override
        public String toString() {
            return "LinkToken[]";
        }
    }

    /** Who is signed in, if anybody; sets the CSRF cookie. */
    @GetMapping("/api/session")
    SessionView session() {
        return signIns.current()
                .map(a -> new SessionView(a.view(), a.preferences()))
                .orElseGet(() -> new SessionView(null, null));
    }

    /** Signs in with a name and a password. */
    @MayRefuse({ProblemType.TOO_MANY_WRONG_PASSWORDS, ProblemType.WRONG_NAME_OR_PASSWORD})
    @PostMapping("/api/session")
    SessionView signIn(@Valid @RequestBody SignIn request, HttpServletRequest http, HttpServletResponse response) {
        return open(signIns.signIn(request, origin(http)), http, response);
    }

    /** Whom a one-time link is for, without using it. */
    @MayRefuse(ProblemType.LINK_USED_OR_EXPIRED)
    @PostMapping("/api/links/inspect")
    AccountView inspect(@Valid @RequestBody LinkToken link) {
        return signIns.inspect(link.token());
    }

    /** Sets a password with a one-time link, once, and signs in. */
    @MayRefuse(ProblemType.LINK_USED_OR_EXPIRED)
    @PostMapping("/api/links/use")
    SessionView use(@Valid @RequestBody UseLink request, HttpServletRequest http, HttpServletResponse response) {
        return open(signIns.use(request, origin(http)), http, response);
    }

    private static SignInService.Origin origin(HttpServletRequest http) {
        Cookie mark = WebUtils.getCookie(http, KnownDevices.COOKIE);
        return new SignInService.Origin(http.getRemoteAddr(), mark == null ? null : mark.getValue(), http.isSecure());
    }

    private SessionView open(SignInService.Entered entered, HttpServletRequest http, HttpServletResponse response) {
        var authentication = UsernamePasswordAuthenticationToken.authenticated(entered.who(), null, List.of());
        response.addHeader(HttpHeaders.SET_COOKIE, entered.deviceMark().toString());
        sessionStrategy.onAuthentication(authentication, http, response);
        SecurityContext context = SecurityContextHolder.createEmptyContext();
        context.setAuthentication(authentication);
        SecurityContextHolder.setContext(context);
        contexts.saveContext(context, http, response);
        HttpSession session = http.getSession();
        session.setAttribute(Sessions.ADDRESS, http.getRemoteAddr());
        session.setAttribute(Sessions.DEVICE, Devices.named(http.getHeader(HttpHeaders.USER_AGENT)));
        return session();
    }
}
