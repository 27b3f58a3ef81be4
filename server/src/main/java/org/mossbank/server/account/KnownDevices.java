package org.mossbank.server.account;

import java.nio.charset.StandardCharsets;
import java.security.GeneralSecurityException;
import java.security.MessageDigest;
import java.time.Duration;
import java.util.Base64;
import java.util.Optional;
import java.util.UUID;
import javax.crypto.Mac;
import javax.crypto.spec.SecretKeySpec;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.springframework.http.ResponseCookie;
import org.springframework.stereotype.Component;

/**
 * Devices at which somebody has signed in. Each keeps a signed mark, out of reach of scripts, that says for whom; it lets
 * nobody in, but whoever has it does not wait for others' guesses.
 */
@Component
public class KnownDevices {
    public static final String COOKIE = "mossbank-device";
    private static final String ALGORITHM = "HmacSHA256";
    private static final Duration LIFE = Duration.ofDays(400);

    private final SigningKeys keys;

    KnownDevices(SigningKeys keys) {
        this.keys = keys;
    }

    /** The mark to keep at a device where somebody has just signed in; one that is known already stays. */
    ResponseCookie mark(AccountId account, @Nullable String known, boolean isSecure) {
        String device = of(account, known).orElseGet(() -> UUID.randomUUID().toString());
        String content = account + "." + device;
        return ResponseCookie.from(COOKIE, content + "." + signature(content))
                .httpOnly(true)
                .secure(isSecure)
                .sameSite("Lax")
                .path("/api/")
                .maxAge(LIFE)
                .build();
    }

    /** Which of an account's devices a mark is from; empty if it is of another account, or not signed here. */
    Optional<String> of(AccountId account, @Nullable String mark) {
        return mark != null && mark.startsWith(account + ".") ? device(mark) : Optional.empty();
    }

    /** Which device a mark is from, whoever signed in there; empty if it is not signed here. */
    public Optional<String> device(String mark) {
        String[] parts = mark.split("\\.", 4);
        if (parts.length != 3) {
            return Optional.empty();
        }
        boolean signed = MessageDigest.isEqual(
                signature(parts[0] + "." + parts[1]).getBytes(StandardCharsets.US_ASCII),
                parts[2].getBytes(StandardCharsets.US_ASCII));
        return signed ? Optional.of(parts[1]) : Optional.empty();
    }

    private String signature(String content) {
        try {
            Mac mac = Mac.getInstance(ALGORITHM);
            mac.init(new SecretKeySpec(keys.get("device"), ALGORITHM));
            return Base64.getUrlEncoder()
                    .withoutPadding()
                    .encodeToString(mac.doFinal(content.getBytes(StandardCharsets.UTF_8)));
        } catch (GeneralSecurityException e) {
            throw new IllegalStateException("every Java runtime has " + ALGORITHM, e);
        }
    }
}
