package org.mossbank.server.account;

import jakarta.persistence.Entity;
import jakarta.persistence.GeneratedValue;
import jakarta.persistence.GenerationType;
import jakarta.persistence.Id;
import java.time.Instant;

/** A wrong password, counted against a name or an address. */
@Entity
class SignInFailure {
    @Id
    @GeneratedValue(strategy = GenerationType.IDENTITY)
    private long id;

    private String subject;
    private Instant at;

    @SuppressWarnings("NullAway.Init")
    protected SignInFailure() {}

    static SignInFailure of(String subject, Instant at) {
        SignInFailure failure = new SignInFailure();
        failure.subject = subject;
        failure.at = at;
        return failure;
    }
}
