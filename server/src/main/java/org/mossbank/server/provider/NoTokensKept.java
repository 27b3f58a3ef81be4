package org.mossbank.server.provider;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import org.jspecify.annotations.Nullable;
import org.springframework.security.core.Authentication;
import org.springframework.security.oauth2.client.OAuth2AuthorizedClient;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizedClientRepository;

/** Access tokens are of no use once somebody is in: they are kept nowhere. */
final class NoTokensKept implements OAuth2AuthorizedClientRepository {
    @Override
    public <T extends OAuth2AuthorizedClient> @Nullable T loadAuthorizedClient(
            String registration, @Nullable Authentication who, HttpServletRequest request) {
        return null;
    }

    @Override
    public void saveAuthorizedClient(
            OAuth2AuthorizedClient client,
            @Nullable Authentication who,
            HttpServletRequest request,
            HttpServletResponse response) {
        // Nothing is kept.
    }

    @Override
    public void removeAuthorizedClient(
            String registration,
            @Nullable Authentication who,
            HttpServletRequest request,
            HttpServletResponse response) {
        // Nothing was kept.
    }
}
