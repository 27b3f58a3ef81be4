package org.mossbank.server.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.time.Clock;
import java.time.Duration;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.security.authentication.InsufficientAuthenticationException;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.HandlerInterceptor;
import org.springframework.web.servlet.config.annotation.InterceptorRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * A page says for whom it asks. Where somebody else has signed in since, in another window of the same browser, what it
 * asks is not done in their name, and is not refused as if it had been wrong.
 */
@Component
class ActingAccount implements WebMvcConfigurer, HandlerInterceptor {
    static final String HEADER = "X-Mossbank-Account";

    private final CurrentAccount current;
    private final Clock clock;
    private final Duration longest;

    ActingAccount(CurrentAccount current, Clock clock, @Value("${mossbank.sessions.longest}") Duration longest) {
        this.current = current;
        this.clock = clock;
        this.longest = longest;
    }

    @Override
    public void addInterceptors(InterceptorRegistry registry) {
        registry.addInterceptor(this).addPathPatterns("/api/**");
    }

    /**
     * @throws InsufficientAuthenticationException if the session is older than any may be
     * @throws Problem 409 if another is signed in than the page says
     */
    @Override
    public boolean preHandle(HttpServletRequest request, HttpServletResponse response, Object handler) {
        HttpSession session = request.getSession(false);
        if (session != null
                && current.ifSignedIn().isPresent()
                && clock.millis() - session.getCreationTime() > longest.toMillis()) {
            session.invalidate();
            throw new InsufficientAuthenticationException("The session has lasted as long as one may.");
        }
        String acting = request.getHeader(HEADER);
        if (acting != null
                && current.ifSignedIn()
                        .filter(id -> !id.toString().equals(acting))
                        .isPresent()) {
            throw new Problem(
                    ProblemType.OTHER_ACCOUNT,
                    "Somebody else has signed in in this browser since. Load the page again to go on as them.");
        }
        return true;
    }
}
