package org.mossbank.server.shared;

import java.util.List;
import org.springframework.web.ErrorResponseException;

/** A refusal that the caller can act on, with a type that never changes and a page in the documentation. */
public class Problem extends ErrorResponseException {
    /** What is wrong with one field. */
    public record FieldError(String field, String message) {}

    public Problem(ProblemType type, String detail) {
        super(type.status(), type.body(detail), null);
    }

    /** Adds a member to the problem's body. */
    public Problem with(String name, Object value) {
        getBody().setProperty(name, value);
        return this;
    }

    public Problem withErrors(List<FieldError> errors) {
        return with("errors", errors);
    }

    /** One field is not as it must be. */
    public static Problem invalid(String field, String message) {
        return new Problem(ProblemType.INVALID_REQUEST, "Some fields are not as they must be.")
                .withErrors(List.of(new FieldError(field, message)));
    }

    /** Too much is asked for at the same time; the same request may be sent again soon. */
    public static Problem busy(String detail) {
        Problem problem = new Problem(ProblemType.BUSY, detail + " Try again in a moment.");
        problem.getHeaders().set("Retry-After", "2");
        return problem;
    }

    /** Nothing here, or nothing that this person may know of. */
    public static Problem notFound(String what) {
        return new Problem(ProblemType.NOT_FOUND, what + " is not here.");
    }
}
