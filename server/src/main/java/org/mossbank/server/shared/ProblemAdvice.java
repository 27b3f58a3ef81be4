package org.mossbank.server.shared;

import java.util.List;
import java.util.Objects;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.MediaType;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.AuthenticationException;
import org.springframework.web.ErrorResponse;
import org.springframework.web.bind.MethodArgumentNotValidException;
import org.springframework.web.bind.annotation.ExceptionHandler;
import org.springframework.web.bind.annotation.RestControllerAdvice;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.servlet.mvc.method.annotation.ResponseEntityExceptionHandler;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DatabindException;

/** Every error as a problem detail (RFC 9457); an unexpected one gives a log id and nothing else. */
@RestControllerAdvice
class ProblemAdvice extends ResponseEntityExceptionHandler {
    @Override
    protected @Nullable ResponseEntity<Object> handleMethodArgumentNotValid(
            MethodArgumentNotValidException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        List<Problem.FieldError> errors = e.getBindingResult().getFieldErrors().stream()
                .map(f -> new Problem.FieldError(f.getField(), String.valueOf(f.getDefaultMessage())))
                .toList();
        ProblemDetail body = ProblemType.INVALID_REQUEST.body("Some fields are not as they must be.");
        body.setProperty("errors", errors);
        return handleExceptionInternal(e, body, headers, status, request);
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleHttpMessageNotReadable(
            HttpMessageNotReadableException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        Problem bySize = Failures.bySize(e).orElse(null);
        if (bySize != null) {
            return handleExceptionInternal(e, bySize.getBody(), bySize.getHeaders(), bySize.getStatusCode(), request);
        }
        if (e.getCause() instanceof UnstorableText text) {
            ProblemDetail body = ProblemType.INVALID_REQUEST.body("Some fields are not as they must be.");
            body.setProperty("errors", List.of(new Problem.FieldError(fieldOf(text), UnstorableText.MUST_NOT)));
            return handleExceptionInternal(e, body, headers, status, request);
        }
        ProblemDetail body = ProblemType.MALFORMED_REQUEST.body("The body is not the JSON that this address takes.");
        if (e.getCause() instanceof DatabindException databind
                && !databind.getPath().isEmpty()) {
            body.setProperty(
                    "errors",
                    List.of(new Problem.FieldError(fieldOf(databind), "must be there and of the type described")));
        }
        return handleExceptionInternal(e, body, headers, status, request);
    }

    private static String fieldOf(DatabindException e) {
        return e.getPath().stream()
                .map(JacksonException.Reference::getPropertyName)
                .filter(Objects::nonNull)
                .collect(Collectors.joining("."));
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleMaxUploadSizeExceededException(
            MaxUploadSizeExceededException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        ProblemDetail body = ProblemType.TOO_LARGE.body("The file is larger than 64 MB.");
        return handleExceptionInternal(e, body, headers, HttpStatus.CONTENT_TOO_LARGE, request);
    }

    /** What the framework refuses by itself keeps its status and its words, and gets a type of ours. */
    @Override
    protected @Nullable ResponseEntity<Object> handleExceptionInternal(
            Exception e, @Nullable Object body, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        Object told = body == null && e instanceof ErrorResponse refusal ? refusal.getBody() : body;
        if (told instanceof ProblemDetail problem && hasNoType(problem)) {
            ProblemType type = status.isSameCodeAs(HttpStatus.NOT_FOUND)
                    ? ProblemType.NOT_FOUND
                    : status.is5xxServerError() ? ProblemType.BUSY : ProblemType.MALFORMED_REQUEST;
            ProblemDetail own = type.body(
                    type == ProblemType.NOT_FOUND ? "This address is not here." : String.valueOf(problem.getDetail()));
            own.setStatus(status.value());
            told = own;
        }
        return super.handleExceptionInternal(e, told, headers, status, request);
    }

    private static boolean hasNoType(ProblemDetail problem) {
        return problem.getType() == null || problem.getType().toString().equals("about:blank");
    }

    /** Security's own exceptions go on to its filters, which write 401 and 403. */
    @ExceptionHandler({AccessDeniedException.class, AuthenticationException.class})
    ResponseEntity<Object> security(RuntimeException e) {
        throw e;
    }

    @ExceptionHandler(Exception.class)
    ResponseEntity<Object> unexpected(Exception e, WebRequest request) {
        Problem problem = Failures.of(e);
        return ResponseEntity.status(problem.getStatusCode())
                .headers(problem.getHeaders())
                .contentType(MediaType.APPLICATION_PROBLEM_JSON)
                .body(problem.getBody());
    }
}
