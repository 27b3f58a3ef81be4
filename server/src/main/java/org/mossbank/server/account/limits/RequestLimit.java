package org.mossbank.server.account.limits;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import io.github.bucket4j.Bucket;
import io.github.bucket4j.ConsumptionProbe;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.net.Inet6Address;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.time.Duration;
import java.util.Arrays;
import java.util.HexFormat;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.KnownDevices;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.ProblemWriter;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * How often somebody may ask within a minute. Whoever has signed in is counted by their account, wherever they are; whoever has
 * not, by a device at which somebody has signed in before, or else by their address. So nobody who floods the server keeps those
 * out who sit behind the same address and have been here before. Counted by each server for itself: it is the server that is
 * spared.
 */
final class RequestLimit extends OncePerRequestFilter {
    private static final Duration MINUTE = Duration.ofMinutes(1);

    /** Whoever is forgotten for others has all of their minute again; that many addresses at once are no person's. */
    private static final int MOST_COUNTED = 100_000;

    /** Of an address of IPv6, what one household or office is given. */
    private static final int BYTES_OF_A_NETWORK = 8;

    /**
     * @param ofAccount requests a minute by one account
     * @param ofAddress requests a minute by whoever is not signed in, from one address
     */
    record Allowance(int ofAccount, int ofAddress) {}

    private final Cache<String, Bucket> counted = Caffeine.newBuilder()
            .maximumSize(MOST_COUNTED)
            .expireAfterAccess(MINUTE.multipliedBy(2))
            .build();
    private final Allowance allowance;
    private final KnownDevices devices;
    private final ProblemWriter problems;

    RequestLimit(Allowance allowance, KnownDevices devices, ProblemWriter problems) {
        this.allowance = allowance;
        this.devices = devices;
        this.problems = problems;
    }

    /** Files of the client cost nothing, and health is asked for by what watches over the server. */
    @Override
    protected boolean shouldNotFilter(HttpServletRequest request) {
        return !request.getRequestURI()
                .substring(request.getContextPath().length())
                .startsWith("/api/");
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String counts = signedIn().map(name -> "account " + name).orElseGet(() -> device(request));
        int allowed = counts.startsWith("account ") ? allowance.ofAccount() : allowance.ofAddress();
        ConsumptionProbe probe = counted.get(counts, c -> full(allowed)).tryConsumeAndReturnRemaining(1);
        if (probe.isConsumed()) {
            chain.doFilter(request, response);
            return;
        }
        long seconds = Duration.ofNanos(probe.getNanosToWaitForRefill()).toSeconds() + 1;
        response.setHeader("Retry-After", String.valueOf(seconds));
        problems.write(
                response,
                ProblemType.TOO_MANY_REQUESTS,
                "More was asked for than a minute takes. Wait %d s, then go on.".formatted(seconds));
    }

    private static Optional<String> signedIn() {
        return Optional.ofNullable(SecurityContextHolder.getContext().getAuthentication())
                .filter(who -> who.isAuthenticated() && !(who instanceof AnonymousAuthenticationToken))
                .map(Authentication::getName);
    }

    private static Bucket full(int allowed) {
        return Bucket.builder()
                .addLimit(limit -> limit.capacity(allowed).refillGreedy(allowed, MINUTE))
                .build();
    }

    private String device(HttpServletRequest request) {
        Cookie @Nullable [] cookies = request.getCookies();
        return (cookies == null ? Stream.<Cookie>empty() : Arrays.stream(cookies))
                .filter(c -> c.getName().equals(KnownDevices.COOKIE))
                .flatMap(c -> devices.device(c.getValue()).stream())
                .findFirst()
                .map(device -> "device " + device)
                .orElseGet(() -> "address " + network(request.getRemoteAddr()));
    }

    /** @param address in numbers, as the connection or a proxy that is named has it */
    static String network(String address) {
        try {
            // Of what is no address in numbers no name server is asked.
            if (address.matches("[0-9a-fA-F:.]{2,45}") && InetAddress.getByName(address) instanceof Inet6Address six) {
                return HexFormat.of().formatHex(six.getAddress(), 0, BYTES_OF_A_NETWORK);
            }
        } catch (UnknownHostException e) {
            return address;
        }
        return address;
    }
}
