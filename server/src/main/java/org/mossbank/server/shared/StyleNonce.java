package org.mossbank.server.shared;

import jakarta.servlet.http.HttpServletRequest;
import java.security.SecureRandom;
import java.util.Base64;
import java.util.Optional;

/**
 * The word by which a page knows elements with styles that its own scripts put into it from those that anything else brought
 * in. Another one each time a page is served.
 */
public final class StyleNonce {
    private static final String ATTRIBUTE = StyleNonce.class.getName();
    private static final SecureRandom RANDOM = new SecureRandom();
    /** As the standard wants at least: 128 bits. */
    private static final int BYTES = 16;

    private StyleNonce() {}

    /** Makes one for the page that answers this request. */
    static String make(HttpServletRequest request) {
        byte[] bytes = new byte[BYTES];
        RANDOM.nextBytes(bytes);
        String nonce = Base64.getEncoder().encodeToString(bytes);
        request.setAttribute(ATTRIBUTE, nonce);
        return nonce;
    }

    /** That of the page, where the answer is one. */
    public static Optional<String> of(HttpServletRequest request) {
        return Optional.ofNullable((String) request.getAttribute(ATTRIBUTE));
    }
}
