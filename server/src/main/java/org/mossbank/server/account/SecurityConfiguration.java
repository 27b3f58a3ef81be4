package org.mossbank.server.account;

import jakarta.servlet.DispatcherType;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.security.MessageDigest;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.limits.RequestLimits;
import org.mossbank.server.audit.Audit;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.shared.ProblemType;
import org.mossbank.server.shared.ProblemWriter;
import org.mossbank.server.shared.Sha256;
import org.mossbank.server.shared.StyleNonce;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.annotation.Order;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.security.authentication.AnonymousAuthenticationToken;
import org.springframework.security.authorization.AuthorizationDecision;
import org.springframework.security.config.annotation.method.configuration.EnableMethodSecurity;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.config.annotation.web.configurers.CsrfConfigurer;
import org.springframework.security.config.annotation.web.configurers.HeadersConfigurer;
import org.springframework.security.core.Authentication;
import org.springframework.security.crypto.bcrypt.BCryptPasswordEncoder;
import org.springframework.security.crypto.password.PasswordEncoder;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.AnonymousAuthenticationFilter;
import org.springframework.security.web.authentication.logout.HttpStatusReturningLogoutSuccessHandler;
import org.springframework.security.web.authentication.session.ChangeSessionIdAuthenticationStrategy;
import org.springframework.security.web.authentication.session.CompositeSessionAuthenticationStrategy;
import org.springframework.security.web.authentication.session.SessionAuthenticationStrategy;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextRepository;
import org.springframework.security.web.csrf.CookieCsrfTokenRepository;
import org.springframework.security.web.csrf.CsrfAuthenticationStrategy;
import org.springframework.security.web.csrf.CsrfToken;
import org.springframework.security.web.csrf.CsrfTokenRequestAttributeHandler;
import org.springframework.security.web.header.writers.ReferrerPolicyHeaderWriter.ReferrerPolicy;
import org.springframework.security.web.servlet.util.matcher.PathPatternRequestMatcher;

/** The filter chain: denies by default under /api, serves the client's files to all. */
@Configuration
@EnableMethodSecurity
class SecurityConfiguration {
    /**
     * Scripts, styles, fonts and pictures from here only; a hostile answer can load nothing from elsewhere, and style nothing.
     * Elements with styles are those that the page's own scripts put into it, which know its word.
     */
    private static final String CONTENT_SECURITY_POLICY = "default-src 'none'; script-src 'self'; "
            + "style-src 'self'%s; font-src 'self'; img-src 'self' data:; connect-src 'self'; "
            + "base-uri 'none'; form-action 'self'; frame-ancestors 'none'";

    private static final String POLICY = "Content-Security-Policy";

    /** Nothing here asks for any of it, and no answer that is shown may. */
    private static final String PERMISSIONS = "camera=(), microphone=(), geolocation=(), payment=(), usb=(), "
            + "display-capture=(), publickey-credentials-get=(), browsing-topics=()";

    private static final long A_YEAR = 31_536_000;

    /** Where the browser goes to sign out at the provider as well, in the answer to signing out here. */
    static final String SIGN_OUT_AT = "X-Mossbank-Sign-Out-At";

    private static final CookieCsrfTokenRepository CSRF_TOKENS = CookieCsrfTokenRepository.withHttpOnlyFalse();

    /** The token comes in a header; no form is taken apart to look for it there, before anybody has signed in. */
    private static final class HeaderAlone extends CsrfTokenRequestAttributeHandler {
        HeaderAlone() {
            setCsrfRequestAttributeName(null);
        }

        @Override
        public @Nullable String resolveCsrfTokenValue(HttpServletRequest request, CsrfToken token) {
            return request.getHeader(token.getHeaderName());
        }
    }

    @Bean
    PasswordEncoder passwordEncoder() {
        return new BCryptPasswordEncoder();
    }

    @Bean
    SecurityContextRepository securityContextRepository() {
        return new HttpSessionSecurityContextRepository();
    }

    @Bean
    SessionAuthenticationStrategy sessionAuthenticationStrategy() {
        CsrfAuthenticationStrategy newToken = new CsrfAuthenticationStrategy(CSRF_TOKENS);
        CsrfTokenRequestAttributeHandler atOnce = new CsrfTokenRequestAttributeHandler();
        // Without a name the token is made at once, so that the answer to the sign-in already sets its cookie.
        atOnce.setCsrfRequestAttributeName(null);
        newToken.setRequestHandler(atOnce);
        return new CompositeSessionAuthenticationStrategy(
                List.of(new ChangeSessionIdAuthenticationStrategy(), newToken));
    }

    /** The client's files are everybody's: no session is looked for, so they come also while the database is away. */
    @Bean
    @Order(1)
    SecurityFilterChain files(HttpSecurity http) throws Exception {
        return http.securityMatcher(request -> !path(request).startsWith("/api/")
                        && !path(request).startsWith("/actuator/")
                        && request.getDispatcherType() != DispatcherType.ERROR)
                .authorizeHttpRequests(requests -> requests.requestMatchers(HttpMethod.GET, "/**")
                        .permitAll()
                        .requestMatchers(HttpMethod.HEAD, "/**")
                        .permitAll()
                        .anyRequest()
                        .denyAll())
                .csrf(SecurityConfiguration::csrf)
                .securityContext(c -> c.disable())
                .sessionManagement(c -> c.disable())
                .requestCache(c -> c.disable())
                .logout(c -> c.disable())
                .headers(SecurityConfiguration::headers)
                .build();
    }

    /** Within the application, wherever that stands. */
    private static String path(HttpServletRequest request) {
        return request.getRequestURI().substring(request.getContextPath().length());
    }

    /** The token comes with the page, as a cookie of its own: the first thing that is sent may be a one-time link. */
    private static void csrf(CsrfConfigurer<HttpSecurity> csrf) {
        csrf.spa();
        csrf.csrfTokenRepository(CSRF_TOKENS);
        csrf.csrfTokenRequestHandler(new HeaderAlone());
    }

    private static void writePolicy(HttpServletRequest request, HttpServletResponse response) {
        if (!response.containsHeader(POLICY)) {
            String own = StyleNonce.of(request)
                    .map(nonce -> " 'nonce-" + nonce + "'")
                    .orElse("");
            response.setHeader(POLICY, CONTENT_SECURITY_POLICY.formatted(own));
        }
    }

    private static void headers(HeadersConfigurer<HttpSecurity> headers) {
        headers.addHeaderWriter(SecurityConfiguration::writePolicy)
                .referrerPolicy(r -> r.policy(ReferrerPolicy.NO_REFERRER))
                .permissionsPolicyHeader(p -> p.policy(PERMISSIONS))
                // For this name alone: what else stands below it is not ours to decide on.
                .httpStrictTransportSecurity(h -> h.includeSubDomains(false).maxAgeInSeconds(A_YEAR));
    }

    @Bean
    SecurityFilterChain filterChain(
            HttpSecurity http,
            ProblemWriter problems,
            SecurityContextRepository contexts,
            Audit audit,
            ObjectProvider<OtherWaysIn> others,
            AccountAccess access,
            RequestLimits limits,
            @Value("${mossbank.metrics.token}") String metricsToken,
            @Value("${mossbank.description-for-all}") boolean descriptionForAll)
            throws Exception {
        for (OtherWaysIn other : others) {
            other.addTo(http);
        }
        return http.authorizeHttpRequests(requests -> requests.dispatcherTypeMatchers(DispatcherType.ERROR)
                        .permitAll()
                        .requestMatchers(
                                "/api/session",
                                "/api/links/*",
                                "/api/demo/sign-ins",
                                "/api/setup",
                                "/api/sign-in/**",
                                "/api/mail")
                        .permitAll()
                        .requestMatchers(HttpMethod.GET, "/api/memo-links/*")
                        .permitAll()
                        .requestMatchers("/api/openapi")
                        .access((who, request) -> new AuthorizationDecision(descriptionForAll || isSignedIn(who.get())))
                        .requestMatchers("/actuator/prometheus")
                        .access((who, request) -> new AuthorizationDecision(bears(request.getRequest(), metricsToken)
                                || isSignedIn(who.get()) && access.isAdministrator()))
                        .requestMatchers("/actuator/health/**")
                        .permitAll()
                        .requestMatchers("/api/**", "/actuator/**")
                        .authenticated()
                        .anyRequest()
                        .denyAll())
                .securityContext(c -> c.securityContextRepository(contexts))
                .csrf(SecurityConfiguration::csrf)
                .requestCache(c -> c.disable())
                .logout(l -> l.logoutRequestMatcher(
                                PathPatternRequestMatcher.withDefaults().matcher(HttpMethod.DELETE, "/api/session"))
                        .addLogoutHandler((request, response, who) -> {
                            if (isSignedIn(who)) {
                                audit.keepOf(Objects.requireNonNull(who).getName(), AuditSort.SIGNED_OUT, "");
                            }
                            others.orderedStream()
                                    .flatMap(o -> o.signOutAddress(request).stream())
                                    .findFirst()
                                    .ifPresent(address -> response.setHeader(SIGN_OUT_AT, address));
                        })
                        .logoutSuccessHandler(new HttpStatusReturningLogoutSuccessHandler(HttpStatus.NO_CONTENT)))
                .exceptionHandling(e -> e.authenticationEntryPoint((request, response, why) ->
                                problems.write(response, ProblemType.NOT_SIGNED_IN, "Sign in first."))
                        .accessDeniedHandler((request, response, why) -> problems.write(
                                response, ProblemType.NOT_ALLOWED, "Your role in this study does not allow this.")))
                .headers(SecurityConfiguration::headers)
                .addFilterAfter(limits.filter(), AnonymousAuthenticationFilter.class)
                .build();
    }

    /** Compared in a time that tells nothing of where the two differ. */
    private static boolean bears(HttpServletRequest request, String token) {
        String brought = String.valueOf(request.getHeader(HttpHeaders.AUTHORIZATION));
        return !token.isBlank() && MessageDigest.isEqual(Sha256.of(brought), Sha256.of("Bearer " + token));
    }

    private static boolean isSignedIn(@Nullable Authentication who) {
        return who != null && who.isAuthenticated() && !(who instanceof AnonymousAuthenticationToken);
    }
}
