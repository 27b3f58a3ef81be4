package org.mossbank.server.shared;

import java.util.List;
import java.util.Objects;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.HttpStatusCode;
import org.springframework.http.ProblemDetail;
import org.springframework.http.ResponseEntity;
import org.springframework.http.converter.HttpMessageNotReadableException;
import org.springframework.security.access.AccessDeniedException;
import org.springframework.security.core.AuthenticationException;
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
    private static final Logger LOG = LoggerFactory.getLogger(ProblemAdvice.class);

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
        ProblemDetail body = ProblemType.MALFORMED_REQUEST.body("The body is not the JSON that this address takes.");
        if (e.getCause() instanceof DatabindException databind
                && !databind.getPath().isEmpty()) {
            String field = databind.getPath().stream()
                    .map(JacksonException.Reference::getPropertyName)
                    .filter(Objects::nonNull)
                    .collect(Collectors.joining("."));
            body.setProperty(
                    "errors", List.of(new Problem.FieldError(field, "must be there and of the type described")));
        }
        return handleExceptionInternal(e, body, headers, status, request);
    }

    @Override
    protected @Nullable ResponseEntity<Object> handleMaxUploadSizeExceededException(
            MaxUploadSizeExceededException e, HttpHeaders headers, HttpStatusCode status, WebRequest request) {
        ProblemDetail body = ProblemType.TOO_LARGE.body("The file is larger than 64 MB.");
        return handleExceptionInternal(e, body, headers, HttpStatus.CONTENT_TOO_LARGE, request);
    }

    /** Security's own exceptions go on to its filters, which write 401 and 403. */
    @ExceptionHandler({AccessDeniedException.class, AuthenticationException.class})
    ResponseEntity<Object> security(RuntimeException e) {
        throw e;
    }

    @ExceptionHandler(Exception.class)
    ResponseEntity<Object> unexpected(Exception e, WebRequest request) {
        String logId = UUID.randomUUID().toString();
        LOG.error("unexpected error {}", logId, e);
        ProblemDetail body =
                ProblemType.INTERNAL.body("The server could not do this. Its log has the details under " + logId + ".");
        return ResponseEntity.internalServerError()
                .contentType(org.springframework.http.MediaType.APPLICATION_PROBLEM_JSON)
                .body(body);
    }
}
