package org.mossbank.server.shared;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.util.UUID;
import org.slf4j.MDC;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;

/**
 * Stands around all other filters, so that a failure in one of them is told as any other: the session, for one, is read
 * from the database before any controller is reached. Refuses what no text here may hold.
 */
@Component
@Order(OutermostFilter.ORDER)
class OutermostFilter extends OncePerRequestFilter {
    /** The name of the request's id in the log, and in the answer. */
    static final String REQUEST = "request";

    static final String HEADER = "X-Request-Id";

    static final int ORDER = Ordered.HIGHEST_PRECEDENCE + 10;

    private final ProblemWriter problems;

    OutermostFilter(ProblemWriter problems) {
        this.problems = problems;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        String id = UUID.randomUUID().toString();
        response.setHeader(HEADER, id);
        MDC.put(REQUEST, id);
        try {
            passOn(request, response, chain);
        } finally {
            MDC.remove(REQUEST);
        }
    }

    private void passOn(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        if (holdsNul(request.getRequestURI()) || holdsNul(request.getQueryString())) {
            problems.write(response, Problem.invalid("address", UnstorableText.MUST_NOT));
            return;
        }
        try {
            chain.doFilter(request, response);
        } catch (Exception | StackOverflowError e) {
            if (response.isCommitted()) {
                throw e;
            }
            response.reset();
            response.setHeader(HEADER, MDC.get(REQUEST));
            problems.write(response, Failures.of(e));
        }
    }

    private static boolean holdsNul(@org.jspecify.annotations.Nullable String part) {
        return part != null && part.contains("%00");
    }
}
