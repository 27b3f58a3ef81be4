package org.mossbank.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotBlank;
import jakarta.validation.constraints.Size;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.proving.RecentProof;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Signing in and out, and one-time links. Signing out is handled by the filter chain. */
@RestController
class SessionController {
    private final SignInService signIns;
    private final FirstLead firstLead;
    private final SessionOpener sessions;
    private final RecentProof proof;

    SessionController(SignInService signIns, FirstLead firstLead, SessionOpener sessions, RecentProof proof) {
        this.proof = proof;
        this.signIns = signIns;
        this.firstLead = firstLead;
        this.sessions = sessions;
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
    @MayRefuse({ProblemType.TOO_MANY_WRONG_PASSWORDS, ProblemType.WRONG_NAME_OR_PASSWORD, ProblemType.PASSWORDS_OFF})
    @PostMapping("/api/session")
    SessionView signIn(
            @Valid @RequestBody SignInService.SignIn request, HttpServletRequest http, HttpServletResponse response) {
        return open(signIns.signIn(request, SessionOpener.origin(http)), http, response);
    }

    /** Whom a one-time link is for, without using it. */
    @MayRefuse(ProblemType.LINK_USED_OR_EXPIRED)
    @PostMapping("/api/links/inspect")
    AccountView inspect(@Valid @RequestBody LinkToken link) {
        return signIns.inspect(link.token());
    }

    /** Sets a password with a one-time link, once, and signs in. */
    @MayRefuse({ProblemType.LINK_USED_OR_EXPIRED, ProblemType.PASSWORDS_OFF})
    @PostMapping("/api/links/use")
    SessionView use(
            @Valid @RequestBody SignInService.UseLink request, HttpServletRequest http, HttpServletResponse response) {
        return open(signIns.use(request), http, response);
    }

    private SessionView open(Account account, HttpServletRequest http, HttpServletResponse response) {
        sessions.open(account.id(), http, response);
        proof.given(http.getSession());
        return session();
    }
}
