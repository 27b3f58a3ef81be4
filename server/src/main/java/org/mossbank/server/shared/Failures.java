package org.mossbank.server.shared;

import java.io.EOFException;
import java.sql.SQLException;
import java.util.Optional;
import java.util.UUID;
import org.apache.tomcat.util.http.InvalidParameterException;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.slf4j.MDC;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.OptimisticLockingFailureException;

/** What to tell of a failure that nobody foresaw: the database's faults by their kind, all else by a log id. */
public final class Failures {
    private static final Logger LOG = LoggerFactory.getLogger(Failures.class);
    private static final String KEPT = " What you give at the desk is kept in the browser.";
    private static final int DEEPEST = 30;

    private Failures() {}

    public static Problem of(Throwable failure) {
        Optional<Problem> known = ofDatabase(failure);
        if (known.isPresent()) {
            LOG.warn("{}: {}", known.get().getBody().getTitle(), rootOf(failure).getMessage());
            return known.get();
        }
        Optional<Problem> bySize = bySize(failure);
        if (bySize.isPresent()) {
            return bySize.get();
        }
        if (failure instanceof InvalidParameterException) {
            return new Problem(ProblemType.MALFORMED_REQUEST, "The address cannot be understood.");
        }
        if (failure instanceof OptimisticLockingFailureException
                || failure instanceof DataIntegrityViolationException) {
            LOG.warn(
                    "Two changed the same at the same moment: {}",
                    rootOf(failure).getMessage());
            return new Problem(
                    ProblemType.CHANGED_ELSEWHERE,
                    "Somebody changed the same at the same moment. Look at it once more.");
        }
        // The request's own id, by which all that the log says of it is found.
        String logId = Optional.ofNullable(MDC.get(OutermostFilter.REQUEST))
                .orElseGet(() -> UUID.randomUUID().toString());
        LOG.error("unexpected error {}", logId, failure);
        return new Problem(
                ProblemType.INTERNAL, "The server could not do this. Its log has the details under " + logId + ".");
    }

    /** That a body was too large, if that is what it was. */
    static Optional<Problem> bySize(Throwable failure) {
        Throwable cause = failure;
        for (int i = 0; cause != null && i < DEEPEST; i++) {
            if (cause instanceof BodyLimit.BodyTooLarge) {
                return Optional.of(new Problem(ProblemType.TOO_LARGE, "The body is larger than this address takes."));
            }
            cause = cause.getCause();
        }
        return Optional.empty();
    }

    private static Throwable rootOf(Throwable failure) {
        Throwable root = failure;
        for (int i = 0; root.getCause() != null && i < DEEPEST; i++) {
            root = root.getCause();
        }
        return root;
    }

    /**
     * By what the database or the pool said.
     *
     * <p>Source: PostgreSQL 15, appendix A, error codes.
     */
    static Optional<Problem> ofDatabase(Throwable failure) {
        Throwable cause = failure;
        for (int i = 0; cause != null && i < DEEPEST; i++) {
            if (cause instanceof SQLException sql) {
                Optional<Problem> problem = ofSql(sql);
                if (problem.isPresent()) {
                    return problem;
                }
            }
            if (cause instanceof EOFException && i > 0) {
                return Optional.of(away());
            }
            cause = cause.getCause();
        }
        return Optional.empty();
    }

    private static Optional<Problem> ofSql(SQLException sql) {
        String state = sql.getSQLState() == null ? "" : sql.getSQLState();
        if (sql instanceof java.sql.SQLTransientConnectionException && !isBelow(sql)) {
            return Optional.of(Problem.busy("Too much is asked of the database at this moment."));
        }
        if (state.startsWith("08") || state.startsWith("57P") || state.equals("25P03")) {
            return Optional.of(away());
        }
        return switch (state) {
            case "53100", "25006" -> Optional.of(full(state));
            case "53300" -> Optional.of(away());
            case "55P03", "57014", "40P01", "40001" ->
                Optional.of(Problem.busy("Somebody else is changing the same at this moment."));
            default -> Optional.empty();
        };
    }

    /** Whether the pool had nothing to give because the database gave it nothing. */
    public static boolean isBelow(SQLException pool) {
        return pool.getCause() != null || pool.getNextException() != null;
    }

    private static Problem away() {
        Problem problem =
                new Problem(ProblemType.DATABASE_AWAY, "The database cannot be reached; what you give is kept here.");
        problem.getHeaders().set("Retry-After", "3");
        return problem;
    }

    private static Problem full(String state) {
        Problem problem = new Problem(
                ProblemType.DATABASE_FULL,
                (state.equals("53100")
                                ? "The database has no room left, so nothing can be kept there now."
                                : "The database can only be read now, so nothing can be kept there.")
                        + KEPT);
        problem.getHeaders().set("Retry-After", "10");
        return problem;
    }
}
