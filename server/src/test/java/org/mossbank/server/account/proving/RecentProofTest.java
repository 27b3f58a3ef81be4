package org.mossbank.server.account.proving;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import org.mossbank.server.shared.Problem;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.web.context.request.RequestContextHolder;
import org.springframework.web.context.request.ServletRequestAttributes;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** What somebody has shown is good for a while, and no longer. */
public class RecentProofTest {
    private static final Instant SHOWN = Instant.parse("2026-05-04T08:00:00Z");
    private static final Duration LASTS = Duration.ofMinutes(10);

    private final MockHttpServletRequest request = new MockHttpServletRequest();

    private static RecentProof after(Duration passed) {
        return new RecentProof(Clock.fixed(SHOWN.plus(passed), ZoneOffset.UTC), LASTS);
    }

    @BeforeMethod
    public void asked() {
        RequestContextHolder.setRequestAttributes(new ServletRequestAttributes(request));
        request.getSession().invalidate();
    }

    @AfterMethod(alwaysRun = true)
    public void answered() {
        RequestContextHolder.resetRequestAttributes();
    }

    private static void isAskedForAgain(RecentProof proof) {
        assertThatThrownBy(proof::isGiven).isInstanceOf(Problem.class);
    }

    @Test
    public void isGoodUntilItsTimeIsOver() {
        after(Duration.ZERO).given(request.getSession());
        assertThat(after(LASTS.minusMillis(1)).isGiven()).isTrue();
        isAskedForAgain(after(LASTS));
    }

    @Test
    public void isShownByWhoeverAsksAndNobodyElse() {
        isAskedForAgain(after(Duration.ZERO));
        RequestContextHolder.resetRequestAttributes();
        isAskedForAgain(after(Duration.ZERO));
    }

    /** A provider's clock may be wrong, or its word. */
    @Test
    public void whatIsSaidToComeIsGoodFromNowAlone() {
        after(Duration.ZERO).given(request.getSession(), SHOWN.plus(Duration.ofDays(1)));
        isAskedForAgain(after(LASTS));
    }

    @Test
    public void whatWasShownElsewhereIsGoodFromThen() {
        after(Duration.ZERO).given(request.getSession(), SHOWN.minus(LASTS));
        isAskedForAgain(after(Duration.ZERO));
    }
}
