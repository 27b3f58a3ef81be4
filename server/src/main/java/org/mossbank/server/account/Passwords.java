package org.mossbank.server.account;

import io.github.resilience4j.bulkhead.BulkheadFullException;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Locale;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Supplier;
import java.util.stream.Collectors;
import org.mossbank.server.shared.GivingWay;
import org.mossbank.server.shared.Problem;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.stereotype.Component;
import org.springframework.transaction.support.TransactionSynchronizationManager;

/**
 * What a password must be, and its hash. Hashing takes a processor for a tenth of a second, on purpose: only a few are
 * hashed at the same time, and never while a transaction is held.
 */
@Component
class Passwords {
    static final int SHORTEST = 10;

    /** Bcrypt takes no more than this. */
    static final int LONGEST_BYTES = 72;

    private static final Duration LONGEST_WAIT = Duration.ofSeconds(4);

    private static final Set<String> COMMON = common();

    private final PasswordEncoder encoder;
    private final String hashOfNobody;
    /** Half of the processors stay free for those who are in. */
    private static final int MOST = Math.max(1, Runtime.getRuntime().availableProcessors() / 2);

    private final GivingWay threads = new GivingWay("passwords", MOST, LONGEST_WAIT);

    Passwords(PasswordEncoder encoder) {
        this.encoder = encoder;
        this.hashOfNobody = Objects.requireNonNull(encoder.encode("nobody"));
    }

    private static Set<String> common() {
        try (InputStream in = Objects.requireNonNull(Passwords.class.getResourceAsStream("/passwords/common.txt"));
                BufferedReader lines = new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
            return lines.lines().collect(Collectors.toUnmodifiableSet());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /**
     * @param names what the person is called
     * @throws Problem 400 if it is too short, too long, common, or nothing but a name
     */
    static void check(String password, String... names) {
        if (password.codePointCount(0, password.length()) < SHORTEST) {
            throw Problem.invalid("password", "must have " + SHORTEST + " characters or more");
        }
        if (password.getBytes(StandardCharsets.UTF_8).length > LONGEST_BYTES) {
            throw Problem.invalid("password", "must not be longer than " + LONGEST_BYTES + " bytes");
        }
        if (COMMON.contains(password.toLowerCase(Locale.ROOT))) {
            throw Problem.invalid("password", "is one of the commonest there are; take another");
        }
        String letters = letters(password);
        for (String name : names) {
            if (!letters(name).isEmpty() && letters.replace(letters(name), "").isEmpty()) {
                throw Problem.invalid("password", "must be more than the name");
            }
        }
    }

    /** Letters alone: digits and signs about a name do not make a password of it. */
    private static String letters(String text) {
        StringBuilder letters = new StringBuilder();
        text.codePoints()
                .filter(Character::isLetter)
                .map(Character::toLowerCase)
                .forEach(letters::appendCodePoint);
        return letters.toString();
    }

    /** An unknown name costs as much time as a wrong password, so that names cannot be told apart. */
    boolean matches(String password, Optional<String> hash) {
        boolean right = hashing(() -> encoder.matches(password, hash.orElse(hashOfNobody)));
        return right && hash.isPresent();
    }

    String hash(String password) {
        return hashing(() -> Objects.requireNonNull(encoder.encode(password)));
    }

    private <T> T hashing(Supplier<T> work) {
        if (TransactionSynchronizationManager.isActualTransactionActive()) {
            throw new IllegalStateException("hashing must not hold a transaction");
        }
        try {
            return threads.run(work);
        } catch (BulkheadFullException e) {
            throw Problem.busy("Too many people sign in at this moment.");
        }
    }
}
