package org.mossbank.server.account;

import io.github.bucket4j.BucketConfiguration;
import io.github.bucket4j.ConsumptionProbe;
import io.github.bucket4j.distributed.ExpirationAfterWriteStrategy;
import io.github.bucket4j.postgresql.Bucket4jPostgreSQL;
import io.github.bucket4j.postgresql.PostgreSQLSelectForUpdateBasedProxyManager;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import javax.sql.DataSource;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.stereotype.Component;

/**
 * Slows down guessing of passwords. Each try takes a token before the password is looked at, so that tries at the same
 * time are counted too; a right password gives back what it took. Counted in the database, so that several servers count
 * together, and each token in a transaction of its own that is over before the next begins.
 */
@Component
class SignInLimit {
    /** In how long what was taken comes back, evenly. */
    private static final Duration WINDOW = Duration.ofMinutes(15);

    private static final int MOST_FORGOTTEN_AT_ONCE = 100;

    /** Where tokens are taken from, and how many there are at most. */
    private enum Bucket {
        /** Others' guesses take nothing from it: only the device itself can empty it. */
        DEVICE(10),
        NAME_AND_ADDRESS(5),
        NAME(25),
        ADDRESS(50);

        private final BucketConfiguration configuration;

        Bucket(int tokens) {
            configuration = BucketConfiguration.builder()
                    .addLimit(limit -> limit.capacity(tokens).refillGreedy(tokens, WINDOW))
                    .build();
        }
    }

    private final PostgreSQLSelectForUpdateBasedProxyManager<Long> buckets;

    SignInLimit(DataSource database) {
        buckets = Bucket4jPostgreSQL.selectForUpdateBasedBuilder(database)
                .table("sign_in_bucket")
                .expirationAfterWrite(ExpirationAfterWriteStrategy.basedOnTimeForRefillingBucketUpToMax(WINDOW))
                .build();
    }

    /** A try that was paid for, to be told how it ended. */
    final class Try {
        private final List<Taken> taken = new ArrayList<>();
        private final io.github.bucket4j.Bucket ofNameAndAddress;

        private Try(String name, String address) {
            ofNameAndAddress = tokens(Bucket.NAME_AND_ADDRESS, name + "@" + address);
        }

        private record Taken(Bucket bucket, io.github.bucket4j.Bucket tokens) {}

        private void take(Bucket bucket, String subject) {
            var tokens = tokens(bucket, subject);
            ConsumptionProbe probe = tokens.tryConsumeAndReturnRemaining(1);
            if (!probe.isConsumed()) {
                giveBack();
                throw tooMany(Duration.ofNanos(probe.getNanosToWaitForRefill()));
            }
            taken.add(new Taken(bucket, tokens));
        }

        private void giveBack() {
            taken.forEach(t -> t.tokens().addTokens(1));
        }

        /** Forgets the wrong ones of this device, and of this name from this address; all else gets its token back. */
        void wasRight() {
            ofNameAndAddress.reset();
            for (Taken t : taken) {
                if (t.bucket() == Bucket.DEVICE) {
                    t.tokens().reset();
                } else if (t.bucket() != Bucket.NAME_AND_ADDRESS) {
                    t.tokens().addTokens(1);
                }
            }
        }

        /** What it took stays taken. */
        void wasWrong() {
            buckets.removeExpired(MOST_FORGOTTEN_AT_ONCE);
        }
    }

    /**
     * From a device that this name has signed in at before.
     *
     * @throws Problem 429 if there were too many wrong passwords from it lately
     */
    Try fromKnownDevice(String device, String name, String address) {
        Try attempt = new Try(name, address);
        attempt.take(Bucket.DEVICE, device);
        return attempt;
    }

    /** @throws Problem 429 if there were too many wrong passwords lately */
    Try fromElsewhere(String name, String address) {
        Try attempt = new Try(name, address);
        attempt.take(Bucket.NAME_AND_ADDRESS, name + "@" + address);
        attempt.take(Bucket.NAME, name);
        attempt.take(Bucket.ADDRESS, address);
        return attempt;
    }

    private io.github.bucket4j.Bucket tokens(Bucket bucket, String subject) {
        return buckets.getProxy(key(bucket, subject), () -> bucket.configuration);
    }

    private static long key(Bucket bucket, String subject) {
        return ByteBuffer.wrap(Accounts.hash(bucket + ":" + subject)).getLong();
    }

    private static Problem tooMany(Duration wait) {
        long seconds = Math.max(1, wait.toSeconds() + 1);
        long minutes = (seconds + 59) / 60;
        Problem problem = new Problem(
                ProblemType.TOO_MANY_WRONG_PASSWORDS,
                "Wait " + minutes + (minutes == 1 ? " minute" : " minutes") + ", then try again.");
        problem.getHeaders().set("Retry-After", String.valueOf(seconds));
        return problem;
    }
}
