package org.mossbank.server.account.proving;

import jakarta.servlet.http.HttpSession;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;

/**
 * What cannot be taken back is done by whoever has shown a short while ago who they are: a browser that was left open does not
 * sign or delete for whoever sits down at it.
 */
@Component("recentProof")
public class RecentProof {
    /** Name of what a session keeps: when its person last showed who they are. */
    private static final String PROVED_AT = "mossbank.proved-at";

    private final Clock clock;
    private final Duration lasts;

    RecentProof(Clock clock, @Value("${mossbank.sessions.proof}") Duration lasts) {
        this.clock = clock;
        this.lasts = lasts;
    }

    /** From now on, for a while, the person of this session has just shown who they are. */
    public void given(HttpSession session) {
        given(session, clock.instant());
    }

    /** The same for whoever showed it elsewhere, a while ago; what is said to come is not believed. */
    public void given(HttpSession session, Instant at) {
        Instant now = clock.instant();
        session.setAttribute(PROVED_AT, at.isAfter(now) ? now : at);
    }

    /** Whether what was shown at a moment is still good. */
    public boolean isRecent(Instant at) {
        return clock.instant().isBefore(at.plus(lasts));
    }

    /** @throws Problem 403 unless whoever asks has shown a short while ago who they are */
    public boolean isGiven() {
        if (RequestContextHolder.getRequestAttributes() instanceof ServletRequestAttributes request) {
            HttpSession session = request.getRequest().getSession(false);
            if (session != null && session.getAttribute(PROVED_AT) instanceof Instant at && isRecent(at)) {
                return true;
            }
        }
        throw new Problem(ProblemType.PROOF_NEEDED, "Show once more who you are: it is a while since you signed in.");
    }
}
