package org.mossbank.server.provider;

import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.stream.Collectors;
import org.springframework.security.oauth2.client.oidc.authentication.OidcIdTokenValidator;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.core.DelegatingOAuth2TokenValidator;
import org.springframework.security.oauth2.jose.jws.SignatureAlgorithm;
import org.springframework.security.oauth2.jwt.JwtDecoder;
import org.springframework.security.oauth2.jwt.JwtDecoderFactory;
import org.springframework.security.oauth2.jwt.JwtTimestampValidator;
import org.springframework.security.oauth2.jwt.NimbusJwtDecoder;
import org.springframework.stereotype.Component;

/**
 * Reads ID tokens: signed with a published key of the provider, by an algorithm with two keys, for us, from whom we asked,
 * not over (OpenID Connect Core 1.0, section 3.1.3.7). The library looks for a key anew that it does not know.
 */
@Component
class IdTokens implements JwtDecoderFactory<ClientRegistration> {
    private final Map<String, JwtDecoder> known = new ConcurrentHashMap<>();

    @Override
    public JwtDecoder createDecoder(ClientRegistration registration) {
        String keys = String.valueOf(registration.getProviderDetails().getJwkSetUri());
        return known.computeIfAbsent(registration.getRegistrationId() + " " + keys, key -> decoder(registration, keys));
    }

    private static JwtDecoder decoder(ClientRegistration registration, String keys) {
        NimbusJwtDecoder decoder = NimbusJwtDecoder.withJwkSetUri(keys)
                .jwsAlgorithms(algorithms -> algorithms.addAll(algorithms(registration)))
                .restOperations(Outgoing.template())
                .build();
        decoder.setJwtValidator(new DelegatingOAuth2TokenValidator<>(
                List.of(new JwtTimestampValidator(), new OidcIdTokenValidator(registration))));
        return decoder;
    }

    /** What it says that it signs by, as far as it is signed with a key of its own; RS256 where it says nothing. */
    private static Set<SignatureAlgorithm> algorithms(ClientRegistration registration) {
        Object said = registration
                .getProviderDetails()
                .getConfigurationMetadata()
                .getOrDefault("id_token_signing_alg_values_supported", List.of());
        Set<SignatureAlgorithm> named = said instanceof Collection<?> names
                ? names.stream()
                        .flatMap(n -> Optional.ofNullable(SignatureAlgorithm.from(String.valueOf(n))).stream())
                        .collect(Collectors.toSet())
                : Set.of();
        return named.isEmpty() ? Set.of(SignatureAlgorithm.RS256) : named;
    }
}
