package org.mossbank.server.provider;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.io.IOException;
import java.time.Instant;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.OtherWaysIn;
import org.mossbank.server.account.SessionOpener;
import org.mossbank.server.account.proving.RecentProof;
import org.mossbank.server.ids.AccountId;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.http.converter.FormHttpMessageConverter;
import org.springframework.security.config.ObjectPostProcessor;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.AuthenticationException;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.security.oauth2.client.authentication.OAuth2AuthenticationToken;
import org.springframework.security.oauth2.client.endpoint.RestClientAuthorizationCodeTokenResponseClient;
import org.springframework.security.oauth2.client.http.OAuth2ErrorResponseErrorHandler;
import org.springframework.security.oauth2.client.oidc.userinfo.OidcUserService;
import org.springframework.security.oauth2.client.registration.ClientRegistration;
import org.springframework.security.oauth2.client.userinfo.DefaultOAuth2UserService;
import org.springframework.security.oauth2.client.web.DefaultOAuth2AuthorizationRequestResolver;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizationRequestCustomizers;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizationRequestRedirectFilter;
import org.springframework.security.oauth2.client.web.OAuth2AuthorizationRequestResolver;
import org.springframework.security.oauth2.client.web.OAuth2LoginAuthenticationFilter;
import org.springframework.security.oauth2.core.OAuth2AuthenticationException;
import org.springframework.security.oauth2.core.endpoint.OAuth2AuthorizationRequest;
import org.springframework.security.oauth2.core.http.converter.OAuth2AccessTokenResponseHttpMessageConverter;
import org.springframework.security.oauth2.core.oidc.user.OidcUser;
import org.springframework.security.web.context.NullSecurityContextRepository;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;
import org.springframework.web.util.UriComponentsBuilder;

/**
 * The way to a provider and back: authorization code with PKCE, state and nonce. What is to be done on the way back stands
 * in the session, never in an address that somebody else could have made.
 */
@Component
class SignInByProvider implements OtherWaysIn {
    /** Below it, a provider's name begins the way there. */
    static final String BASE = "/api/sign-in";

    private static final Logger LOG = LoggerFactory.getLogger(SignInByProvider.class);

    /** Names of what a session keeps on the way. */
    private static final String NEXT = "mossbank.next";

    static final String LINK = "mossbank.link";
    static final String OWN = "mossbank.own";
    static final String AGAIN = "mossbank.again";
    /** Says in the address which of these the way is for; it stands in the session as well, or nothing is done. */
    static final String FOR = "for";

    private static final String PROVIDER = "mossbank.provider";
    private static final String ID_TOKEN = "mossbank.id-token";

    /** Addresses of this application alone. */
    private static final Pattern HERE = Pattern.compile("/(?![/\\\\])[\\x21-\\x7e]{0,1000}");

    private final Registrations registrations;
    private final Identities identities;
    private final SessionOpener sessions;
    private final RecentProof proof;

    SignInByProvider(Registrations registrations, Identities identities, SessionOpener sessions, RecentProof proof) {
        this.proof = proof;
        this.registrations = registrations;
        this.identities = identities;
        this.sessions = sessions;
    }

    @Override
    public void addTo(HttpSecurity http) throws Exception {
        var resolver = new DefaultOAuth2AuthorizationRequestResolver(registrations, BASE);
        resolver.setAuthorizationRequestCustomizer(OAuth2AuthorizationRequestCustomizers.withPkce());
        var tokens = new RestClientAuthorizationCodeTokenResponseClient();
        tokens.setRestClient(Outgoing.client()
                .configureMessageConverters(converters -> converters
                        .addCustomConverter(new FormHttpMessageConverter())
                        .addCustomConverter(new OAuth2AccessTokenResponseHttpMessageConverter()))
                .defaultStatusHandler(new OAuth2ErrorResponseErrorHandler())
                .build());
        var profiles = new DefaultOAuth2UserService();
        profiles.setRestOperations(Outgoing.template());
        var people = new OidcUserService();
        people.setOauth2UserService(profiles);
        http.oauth2Login(login -> login.clientRegistrationRepository(registrations)
                .authorizedClientRepository(new NoTokensKept())
                .loginPage("/sign-in")
                .authorizationEndpoint(there -> there.authorizationRequestResolver(new Keeping(resolver)))
                .redirectionEndpoint(back -> back.baseUri(BASE + "/*/back"))
                .tokenEndpoint(token -> token.accessTokenResponseClient(tokens))
                .userInfoEndpoint(info -> info.oidcUserService(people))
                .successHandler(this::enters)
                .failureHandler(this::refused)
                .withObjectPostProcessor(new ObjectPostProcessor<OAuth2LoginAuthenticationFilter>() {
                    @Override
                    public <F extends OAuth2LoginAuthenticationFilter> F postProcess(F filter) {
                        // Who comes in, and as whom, is decided by the handler: until then nobody else is signed in.
                        filter.setSecurityContextRepository(new NullSecurityContextRepository());
                        return filter;
                    }
                })
                .withObjectPostProcessor(new ObjectPostProcessor<OAuth2AuthorizationRequestRedirectFilter>() {
                    @Override
                    public <F extends OAuth2AuthorizationRequestRedirectFilter> F postProcess(F filter) {
                        filter.setAuthenticationFailureHandler(SignInByProvider.this::refused);
                        return filter;
                    }
                }));
    }

    /** Keeps where somebody wanted to go, and begins the way to the provider. */
    private static final class Keeping implements OAuth2AuthorizationRequestResolver {
        private final DefaultOAuth2AuthorizationRequestResolver resolver;

        Keeping(DefaultOAuth2AuthorizationRequestResolver resolver) {
            this.resolver = resolver;
        }

        @Override
        public @Nullable OAuth2AuthorizationRequest resolve(HttpServletRequest request) {
            OAuth2AuthorizationRequest begun;
            try {
                begun = resolver.resolve(request);
            } catch (IllegalArgumentException e) {
                // There is no such provider: what comes next says that there is no such page.
                return null;
            }
            if (begun != null) {
                String next = String.valueOf(request.getParameter("next"));
                HttpSession session = request.getSession();
                session.setAttribute(NEXT, HERE.matcher(next).matches() ? next : "/");
                // What was begun and given up in this browser is not done for whoever signs in here next.
                String purpose = String.valueOf(request.getParameter(FOR));
                for (String purposeful : List.of(LINK, OWN, AGAIN)) {
                    if (!purposeful.equals(purpose)) {
                        session.removeAttribute(purposeful);
                    }
                }
                if (AGAIN.equals(purpose)) {
                    // OpenID Connect Core, section 3.1.2.1: whoever is signed in there already is asked all the same.
                    return OAuth2AuthorizationRequest.from(begun)
                            .additionalParameters(Map.of("prompt", "login", "max_age", "0"))
                            .build();
                }
            }
            return begun;
        }

        @Override
        public @Nullable OAuth2AuthorizationRequest resolve(HttpServletRequest request, String registration) {
            return resolver.resolve(request, registration);
        }
    }

    private void enters(HttpServletRequest request, HttpServletResponse response, Authentication who)
            throws IOException {
        SecurityContextHolder.clearContext();
        HttpSession session = request.getSession();
        var token = (OAuth2AuthenticationToken) who;
        var person = (OidcUser) Objects.requireNonNull(token.getPrincipal());
        String provider = token.getAuthorizedClientRegistrationId();
        Object link = taken(session, LINK);
        Object own = taken(session, OWN);
        Object again = taken(session, AGAIN);
        String next = String.valueOf(taken(session, NEXT));
        Identities.Claimed claimed = Identities.Claimed.from(provider, person);
        if (again instanceof AccountId account) {
            String refusal = proves(session, claimed, account);
            redirect(request, response, refusal == null ? next : "/account", refusal);
            return;
        }
        Identities.Outcome outcome = own instanceof AccountId account
                ? identities.add(claimed, account)
                : link instanceof byte[] hash ? identities.accept(claimed, hash) : identities.enter(claimed);
        if (outcome.account() == null) {
            LOG.info("a sign-in by {} was refused: {}", provider, outcome.refusal());
            redirect(request, response, own == null ? "/sign-in" : "/account", outcome.refusal());
            return;
        }
        if (own == null) {
            sessions.open(outcome.account(), request, response);
            request.getSession().setAttribute(PROVIDER, provider);
            request.getSession().setAttribute(ID_TOKEN, person.getIdToken().getTokenValue());
            if (person.getAuthenticatedAt() != null) {
                proof.given(request.getSession(), person.getAuthenticatedAt());
            }
        }
        redirect(request, response, own == null ? next : "/account", null);
    }

    /** Whether somebody who is signed in has shown there, just now, that it is them; or why not. */
    private @Nullable String proves(HttpSession session, Identities.Claimed claimed, AccountId account) {
        Instant at = claimed.claims().getAuthenticatedAt();
        String refusal = !identities.isOf(claimed, account)
                ? "somebody-else"
                : at == null || !proof.isRecent(at) ? "not-asked" : null;
        if (refusal == null) {
            proof.given(session);
        }
        return refusal;
    }

    private static @Nullable Object taken(HttpSession session, String name) {
        Object value = session.getAttribute(name);
        session.removeAttribute(name);
        return value;
    }

    private void refused(HttpServletRequest request, HttpServletResponse response, AuthenticationException why)
            throws IOException {
        String code = codeOf(why);
        // What the provider says is written down for the administrator; the page tells what can be done about it.
        LOG.info(
                "a sign-in by a provider failed: {} {}",
                code,
                String.valueOf(why.getMessage()).replaceAll("\\s+", " "));
        identities.failed(code);
        String refusal =
                code.equals("access_denied") ? "denied" : isAway(code, why) ? Registrations.AWAY : "provider-wrong";
        redirect(request, response, "/sign-in", refusal);
    }

    private static String codeOf(@Nullable Throwable why) {
        if (why instanceof OAuth2AuthenticationException e) {
            return e.getError().getErrorCode();
        }
        return why == null ? "error" : codeOf(why.getCause());
    }

    private static boolean isAway(String code, AuthenticationException why) {
        return code.equals(Registrations.AWAY)
                || String.valueOf(why.getMessage()).toLowerCase(Locale.ROOT).contains("i/o error")
                || code.equals("invalid_token_response") && why.getCause() != null;
    }

    private static void redirect(
            HttpServletRequest request, HttpServletResponse response, String path, @Nullable String refusal)
            throws IOException {
        String address = request.getContextPath() + path;
        response.sendRedirect(refusal == null ? address : address + "?refused=" + refusal);
    }

    @Override
    public Optional<String> signOutAddress(HttpServletRequest request) {
        HttpSession session = request.getSession(false);
        if (session == null || !(session.getAttribute(PROVIDER) instanceof String provider)) {
            return Optional.empty();
        }
        ClientRegistration registration;
        try {
            registration = registrations.findByRegistrationId(provider);
        } catch (OAuth2AuthenticationException e) {
            return Optional.empty();
        }
        Map<String, Object> said = registration == null
                ? Map.of()
                : registration.getProviderDetails().getConfigurationMetadata();
        return Optional.ofNullable(said.get("end_session_endpoint"))
                .map(address -> UriComponentsBuilder.fromUriString(String.valueOf(address))
                        .queryParam("id_token_hint", session.getAttribute(ID_TOKEN))
                        .queryParam(
                                "post_logout_redirect_uri",
                                ServletUriComponentsBuilder.fromContextPath(request)
                                        .path("/sign-in")
                                        .toUriString())
                        .toUriString());
    }
}
