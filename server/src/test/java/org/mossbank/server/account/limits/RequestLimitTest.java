package org.mossbank.server.account.limits;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import java.io.IOException;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;
import org.mossbank.server.ServerTest;
import org.mossbank.server.account.KnownDevices;
import org.mossbank.server.shared.ProblemWriter;
import org.mossbank.testkit.ApiClient;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.mock.web.MockFilterChain;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.authentication.TestingAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;
import org.testng.annotations.AfterMethod;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

/** Whoever asks too often waits, and nobody else does. */
public class RequestLimitTest extends ServerTest {
    private static final String HERE = "192.0.2.7";

    @Autowired
    private KnownDevices devices;

    @Autowired
    private ProblemWriter problems;

    private RequestLimit limit = new RequestLimit(new RequestLimit.Allowance(1, 1), devices, problems);

    @BeforeMethod
    public void three() {
        limit = new RequestLimit(new RequestLimit.Allowance(3, 3), devices, problems);
    }

    @AfterMethod
    public void nobodyIsSignedIn() {
        SecurityContextHolder.clearContext();
    }

    private MockHttpServletResponse ask(String signedIn, String address, String path, Cookie... cookies) {
        SecurityContextHolder.clearContext();
        if (!signedIn.isEmpty()) {
            SecurityContextHolder.getContext()
                    .setAuthentication(new TestingAuthenticationToken(signedIn, "", "ROLE_USER"));
        }
        MockHttpServletRequest request = new MockHttpServletRequest("GET", path);
        request.setRemoteAddr(address);
        request.setCookies(cookies);
        MockHttpServletResponse response = new MockHttpServletResponse();
        try {
            limit.doFilter(request, response, new MockFilterChain());
        } catch (IOException | ServletException e) {
            throw new IllegalStateException(e);
        }
        return response;
    }

    /** How many of ten are let. */
    private int let(String signedIn, String address, Cookie... cookies) {
        AtomicInteger let = new AtomicInteger();
        for (int i = 0; i < 10; i++) {
            if (ask(signedIn, address, "/api/session", cookies).getStatus() == 200) {
                let.incrementAndGet();
            }
        }
        return let.get();
    }

    @Test
    public void anAccountIsCountedWhereverItAsksFrom() {
        assertThat(let("bram", HERE)).isEqualTo(3);
        assertThat(let("bram", "198.51.100.4")).isZero();
        assertThat(let("ines", HERE)).as("beside them").isEqualTo(3);
    }

    @Test
    public void anAddressIsCountedForThoseWhoAreNotSignedIn() {
        assertThat(let("", HERE)).isEqualTo(3);
        assertThat(let("", HERE)).isZero();
        assertThat(let("", "198.51.100.4")).isEqualTo(3);
        assertThat(let("bram", HERE)).as("signed in at the same address").isEqualTo(3);
    }

    @Test
    public void whoeverWasHereBeforeIsNotKeptOutByTheirNeighbours() {
        ApiClient before = freshly(RATER);
        Cookie mark = new Cookie(
                KnownDevices.COOKIE, before.cookie(KnownDevices.COOKIE).orElseThrow());
        assertThat(let("", HERE)).isEqualTo(3);

        assertThat(let("", HERE, mark)).isEqualTo(3);
        assertThat(let("", "198.51.100.4", mark))
                .as("the same device elsewhere")
                .isZero();
        assertThat(let("", HERE, new Cookie(KnownDevices.COOKIE, mark.getValue() + "x")))
                .as("a mark that was not made here")
                .isZero();
    }

    @Test
    public void anOfficeHasOneNetworkOfManyAddresses() {
        assertThat(let("", "2001:db8:1:2::1")).isEqualTo(3);
        assertThat(let("", "2001:db8:1:2:ffff::9")).isZero();
        assertThat(let("", "2001:db8:1:3::1")).isEqualTo(3);
        assertThat(RequestLimit.network("not an address")).isEqualTo("not an address");
    }

    @Test
    public void theRefusalSaysWhenToComeBack() {
        let("", HERE);
        MockHttpServletResponse refused = ask("", HERE, "/api/session");
        assertThat(refused.getStatus()).isEqualTo(429);
        assertThat(refused.getHeader("Retry-After")).matches("[1-9]\\d?");
        assertThat(new String(refused.getContentAsByteArray())).contains("/problems/too-many-requests");
    }

    @Test
    public void filesOfTheClientAreNotCounted() {
        let("", HERE);
        for (String path : List.of("/", "/assets/a.js", "/actuator/health/liveness")) {
            assertThat(ask("", HERE, path).getStatus()).as(path).isEqualTo(200);
        }
    }
}
