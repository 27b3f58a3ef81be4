package org.mossbank.server.shared;

import java.nio.charset.StandardCharsets;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.util.HexFormat;

/** The checksum by which files and tokens are known. */
public final class Sha256 {
    private Sha256() {}

    public static byte[] of(byte[] bytes) {
        try {
            return MessageDigest.getInstance("SHA-256").digest(bytes);
        } catch (NoSuchAlgorithmException e) {
            throw new IllegalStateException("every Java runtime has SHA-256", e);
        }
    }

    public static byte[] of(String text) {
        return of(text.getBytes(StandardCharsets.UTF_8));
    }

    /** In hexadecimal, as command lines print it. */
    public static String hex(byte[] bytes) {
        return HexFormat.of().formatHex(of(bytes));
    }
}
