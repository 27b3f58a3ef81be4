package org.mossbank.server.shared;

import java.net.URI;
import java.util.Locale;
import org.springframework.http.HttpStatus;
import org.springframework.http.ProblemDetail;

/** The sorts of refusal there are. Names never change; each has a page in {@code docs/problems/}. */
public enum ProblemType {
    ACCOUNT_DEACTIVATED(HttpStatus.CONFLICT, "Has left"),
    ANSWERS_REFUSED(HttpStatus.BAD_REQUEST, "Answers refused"),
    ARCHIVE_REFUSED(HttpStatus.BAD_REQUEST, "Archive refused"),
    BRIEF_CLOSED(HttpStatus.CONFLICT, "Brief is closed"),
    BUSY(HttpStatus.SERVICE_UNAVAILABLE, "Busy"),
    CHANGED_ELSEWHERE(HttpStatus.CONFLICT, "Changed elsewhere"),
    DATABASE_AWAY(HttpStatus.SERVICE_UNAVAILABLE, "The database cannot be reached"),
    DATABASE_FULL(HttpStatus.INSUFFICIENT_STORAGE, "The database takes no changes"),
    EXPECTATION_FIRST(HttpStatus.CONFLICT, "Expectation first"),
    HAS_ANSWERS(HttpStatus.CONFLICT, "Has answers"),
    HAS_PASSWORD(HttpStatus.CONFLICT, "Has a password"),
    INTERNAL(HttpStatus.INTERNAL_SERVER_ERROR, "Something went wrong"),
    INVALID_REQUEST(HttpStatus.BAD_REQUEST, "Invalid request"),
    LAST_ADMINISTRATOR(HttpStatus.CONFLICT, "Last administrator"),
    LAST_LEAD(HttpStatus.CONFLICT, "Last lead"),
    LAST_WAY_IN(HttpStatus.CONFLICT, "Last way in"),
    LINK_USED_OR_EXPIRED(HttpStatus.NOT_FOUND, "Link used or expired"),
    MAIL_OFF(HttpStatus.CONFLICT, "Mail is off"),
    MALFORMED_REQUEST(HttpStatus.BAD_REQUEST, "Malformed request"),
    MEMO_SIGNED(HttpStatus.CONFLICT, "Memo is signed"),
    NOT_ALLOWED(HttpStatus.FORBIDDEN, "Not allowed"),
    NOT_FOUND(HttpStatus.NOT_FOUND, "Not found"),
    NOT_READY(HttpStatus.CONFLICT, "Not ready"),
    NOT_SIGNED_IN(HttpStatus.UNAUTHORIZED, "Not signed in"),
    OTHER_ACCOUNT(HttpStatus.CONFLICT, "Somebody else is signed in"),
    PASSWORDS_OFF(HttpStatus.FORBIDDEN, "Passwords are off"),
    PROOF_NEEDED(HttpStatus.FORBIDDEN, "Show who you are"),
    REPEAT_OPEN(HttpStatus.CONFLICT, "A second time"),
    ROUND_CLOSED(HttpStatus.CONFLICT, "Round is closed"),
    CALIBRATING(HttpStatus.CONFLICT, "Raters calibrate by it"),
    ROUND_OPENED(HttpStatus.CONFLICT, "Round has been opened"),
    SECRETS_FOUND(HttpStatus.CONFLICT, "Something looks like a secret"),
    SHEET_INCOMPLETE(HttpStatus.CONFLICT, "Sheet is not complete"),
    SHEET_SENT(HttpStatus.CONFLICT, "Sheet is sent in"),
    SHEET_WITHDRAWN(HttpStatus.CONFLICT, "Sheet is withdrawn"),
    SPLIT_CLOSED(HttpStatus.CONFLICT, "Split is closed"),
    STANDINGS_HIDDEN(HttpStatus.CONFLICT, "Standings are hidden"),
    STARTING_CODE_REFUSED(HttpStatus.BAD_REQUEST, "Starting code refused"),
    TABLE_REFUSED(HttpStatus.BAD_REQUEST, "Table refused"),
    TOO_LARGE(HttpStatus.CONTENT_TOO_LARGE, "Too large"),
    TOO_LATE(HttpStatus.CONFLICT, "Too late"),
    TOO_MANY_INPUTS(HttpStatus.TOO_MANY_REQUESTS, "Too many inputs"),
    TOO_MANY_REQUESTS(HttpStatus.TOO_MANY_REQUESTS, "Too many requests"),
    TOO_MANY_WRONG_PASSWORDS(HttpStatus.TOO_MANY_REQUESTS, "Too many wrong passwords"),
    TRIALS_OFF(HttpStatus.CONFLICT, "Trials are off"),
    WRONG_NAME_OR_PASSWORD(HttpStatus.UNAUTHORIZED, "Wrong name or password");

    /** What addresses of types begin with. */
    public static final String TYPES = "https://mossbank.example/problems/";

    private final HttpStatus status;
    private final String title;

    ProblemType(HttpStatus status, String title) {
        this.status = status;
        this.title = title;
    }

    public HttpStatus status() {
        return status;
    }

    public String title() {
        return title;
    }

    /** The last part of the type's address, and the name of its page. */
    public String slug() {
        return name().toLowerCase(Locale.ROOT).replace('_', '-');
    }

    ProblemDetail body(String detail) {
        ProblemDetail body = ProblemDetail.forStatusAndDetail(status, detail);
        body.setType(URI.create(TYPES + slug()));
        body.setTitle(title);
        return body;
    }
}
