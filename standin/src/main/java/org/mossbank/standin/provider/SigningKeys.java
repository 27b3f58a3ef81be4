package org.mossbank.standin.provider;

import com.nimbusds.jose.JOSEException;
import com.nimbusds.jose.jwk.JWKSet;
import com.nimbusds.jose.jwk.RSAKey;
import com.nimbusds.jose.jwk.gen.RSAKeyGenerator;
import java.util.UUID;

/** What tokens are signed with, and what is published of it. */
final class SigningKeys {
    private static final int BITS = 2048;

    private volatile RSAKey key = made();
    private final RSAKey strange = made();

    private static RSAKey made() {
        try {
            return new RSAKeyGenerator(BITS).keyID(UUID.randomUUID().toString()).generate();
        } catch (JOSEException e) {
            throw new IllegalStateException("every Java runtime has RSA", e);
        }
    }

    void rotate() {
        key = made();
    }

    JWKSet published() {
        return new JWKSet(key);
    }

    JWKSet signing(ProviderFault fault) {
        return new JWKSet(fault == ProviderFault.STRANGE_KEY ? strange : key);
    }
}
