package org.mossbank.server.shared;

import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
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
    static final int ORDER = Ordered.HIGHEST_PRECEDENCE + 10;

    private final ProblemWriter problems;

    OutermostFilter(ProblemWriter problems) {
        this.problems = problems;
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
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
            problems.write(response, Failures.of(e));
        }
    }

    private static boolean holdsNul(@org.jspecify.annotations.Nullable String part) {
        return part != null && part.contains("%00");
    }
}
