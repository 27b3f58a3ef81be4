package org.mossbank.server.provider;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.time.Duration;
import java.util.Map;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.springframework.core.ParameterizedTypeReference;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.registration.ClientRegistrationRepository;
import org.springframework.security.oauth2.client.registration.ClientRegistrations;
import org.springframework.security.oauth2.core.OAuth2AuthenticationException;
import org.springframework.security.oauth2.core.OAuth2Error;
import org.springframework.stereotype.Component;
import org.springframework.web.client.RestClient;
import org.springframework.web.client.RestClientException;

/**
 * What providers say of themselves, asked for when somebody first signs in by one: the server starts also while a provider
 * is away, and what a provider changes holds within the hour.
 */
@Component
class Registrations implements ClientRegistrationRepository {
    private static final Duration KEPT = Duration.ofHours(1);
    private static final String DISCOVERY = "/.well-known/openid-configuration";

    /** The code of a refusal where a provider does not answer as it must. */
    static final String AWAY = "provider-away";

    private final ProviderSettings settings;
    private final RestClient http = Outgoing.client().build();
    private final Cache<String, ClientRegistration> known =
            Caffeine.newBuilder().expireAfterWrite(KEPT).build();

    Registrations(ProviderSettings settings) {
        this.settings = settings;
    }

    /** @throws OAuth2AuthenticationException if the provider does not answer, or not as it must */
    @Override
    public @Nullable ClientRegistration findByRegistrationId(String id) {
        ProviderSettings.Provider provider = settings.all().get(id);
        return provider == null ? null : known.get(id, key -> discover(id, provider));
    }

    private ClientRegistration discover(String id, ProviderSettings.Provider provider) {
        try {
            Map<String, Object> said = Objects.requireNonNull(http.get()
                    .uri(provider.issuer().replaceAll("/+$", "") + DISCOVERY)
                    .retrieve()
                    .body(new ParameterizedTypeReference<Map<String, Object>>() {}));
            // Who answers for another issuer could sign people in as those of that one.
            if (!provider.issuer().equals(said.get("issuer"))) {
                throw away("it calls itself otherwise");
            }
            return ClientRegistrations.fromOidcConfiguration(said)
                    .registrationId(id)
                    .clientId(provider.client())
                    .clientSecret(provider.secret())
                    .clientName(provider.name())
                    .scope("openid", "profile")
                    .redirectUri("{baseUrl}" + SignInByProvider.BASE + "/{registrationId}/back")
                    .build();
        } catch (RestClientException | IllegalArgumentException | NullPointerException e) {
            throw away(String.valueOf(e.getMessage()));
        }
    }

    private static OAuth2AuthenticationException away(String why) {
        return new OAuth2AuthenticationException(new OAuth2Error(AWAY, why, null));
    }
}
