package org.mossbank.server.shared;

import jakarta.servlet.RequestDispatcher;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import org.springframework.boot.webmvc.error.ErrorController;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RestController;

/** Where the container sends what it refused by itself; everything the server says of a failure has one form. */
@RestController
@io.swagger.v3.oas.annotations.Hidden
class ErrorPage implements ErrorController {
    private static final int NOT_FOUND = 404;
    private static final int FIRST_OF_SERVER = 500;

    private final ProblemWriter problems;

    ErrorPage(ProblemWriter problems) {
        this.problems = problems;
    }

    @RequestMapping("/error")
    void tell(HttpServletRequest request, HttpServletResponse response) throws IOException {
        Object status = request.getAttribute(RequestDispatcher.ERROR_STATUS_CODE);
        Object failure = request.getAttribute(RequestDispatcher.ERROR_EXCEPTION);
        if (failure instanceof Throwable thrown) {
            problems.write(response, Failures.of(thrown));
        } else if (!(status instanceof Integer code) || code == NOT_FOUND) {
            problems.write(response, Problem.notFound("This address"));
        } else if (code < FIRST_OF_SERVER) {
            problems.write(response, new Problem(ProblemType.MALFORMED_REQUEST, "The request cannot be understood."));
        } else {
            problems.write(response, new Problem(ProblemType.INTERNAL, "The server could not do this."));
        }
    }
}
