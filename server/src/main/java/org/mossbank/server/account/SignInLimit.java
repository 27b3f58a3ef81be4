package org.mossbank.server.account;

import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/**
 * Slows down guessing of passwords. Counts wrong ones in the database, so that several servers count together: few for one
 * name from one address, more for a name from anywhere, more again for an address with any name.
 */
@Service
class SignInLimit {
    static final int PER_NAME_AND_ADDRESS = 5;
    private static final int PER_NAME = 25;
    private static final int PER_ADDRESS = 50;
    private static final Duration WINDOW = Duration.ofMinutes(15);

    private final SignInFailureRepository failures;
    private final Clock clock;

    SignInLimit(SignInFailureRepository failures, Clock clock) {
        this.failures = failures;
        this.clock = clock;
    }

    private static String pair(String name, String address) {
        return "pair:" + name + "@" + address;
    }

    /** @throws Problem 429 if there were too many wrong passwords lately */
    @SystemOnly
    @Transactional(readOnly = true)
    void check(String name, String address) {
        Instant since = clock.instant().minus(WINDOW);
        if (failures.countBySubjectAndAtAfter(pair(name, address), since) >= PER_NAME_AND_ADDRESS
                || failures.countBySubjectAndAtAfter("name:" + name, since) >= PER_NAME
                || failures.countBySubjectAndAtAfter("address:" + address, since) >= PER_ADDRESS) {
            Problem problem = new Problem(
                    ProblemType.TOO_MANY_WRONG_PASSWORDS, "Wait " + WINDOW.toMinutes() + " minutes, then try again.");
            problem.getHeaders().set("Retry-After", String.valueOf(WINDOW.toSeconds()));
            throw problem;
        }
    }

    /** Kept also when the sign-in is refused, hence a transaction of its own. */
    @SystemOnly
    @Transactional(propagation = Propagation.REQUIRES_NEW)
    void wrongPassword(String name, String address) {
        Instant now = clock.instant();
        failures.deleteByAtBefore(now.minus(WINDOW));
        failures.save(SignInFailure.of(pair(name, address), now));
        failures.save(SignInFailure.of("name:" + name, now));
        failures.save(SignInFailure.of("address:" + address, now));
    }

    @SystemOnly
    @Transactional
    void rightPassword(String name, String address) {
        failures.deleteBySubject(pair(name, address));
    }
}
