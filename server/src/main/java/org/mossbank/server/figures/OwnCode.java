package org.mossbank.server.figures;

import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;

/** Tells one build from another, whatever its version says: by the code itself. */
final class OwnCode {
    private static final String CLASSES = "classpath*:org/mossbank/**/*.class";

    private OwnCode() {}

    /** The SHA-256 of all of Mossbank's classes, in hexadecimal. Read when first asked for, which takes a moment. */
    static String digest() {
        return Once.DIGEST;
    }

    private static final class Once {
        private static final String DIGEST = read();

        private static String read() {
            try {
                MessageDigest digest = MessageDigest.getInstance("SHA-256");
                Resource[] classes = new PathMatchingResourcePatternResolver().getResources(CLASSES);
                Arrays.sort(classes, Comparator.comparing(Resource::getDescription));
                for (Resource one : classes) {
                    try (InputStream in = new DigestInputStream(one.getInputStream(), digest)) {
                        in.transferTo(java.io.OutputStream.nullOutputStream());
                    }
                }
                return HexFormat.of().formatHex(digest.digest());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            } catch (NoSuchAlgorithmException e) {
                throw new IllegalStateException("every Java has SHA-256", e);
            }
        }
    }
}
