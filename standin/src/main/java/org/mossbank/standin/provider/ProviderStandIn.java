package org.mossbank.standin.provider;

import com.nimbusds.jose.jwk.source.JWKSource;
import com.nimbusds.jose.proc.SecurityContext;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import jakarta.servlet.http.HttpSession;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.UUID;
import org.springframework.boot.SpringBootConfiguration;
import org.springframework.boot.autoconfigure.EnableAutoConfiguration;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.context.annotation.Bean;
import org.springframework.core.annotation.Order;
import org.springframework.core.env.Environment;
import org.springframework.http.HttpMethod;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.security.config.Customizer;
import org.springframework.security.config.annotation.web.builders.HttpSecurity;
import org.springframework.security.core.Authentication;
import org.springframework.security.core.userdetails.User;
import org.springframework.security.core.userdetails.UserDetails;
import org.springframework.security.core.userdetails.UserDetailsService;
import org.springframework.security.oauth2.core.AuthorizationGrantType;
import org.springframework.security.oauth2.core.ClientAuthenticationMethod;
import org.springframework.security.oauth2.jwt.JwtEncoder;
import org.springframework.security.oauth2.jwt.NimbusJwtEncoder;
import org.springframework.security.oauth2.server.authorization.client.InMemoryRegisteredClientRepository;
import org.springframework.security.oauth2.server.authorization.client.RegisteredClient;
import org.springframework.security.oauth2.server.authorization.client.RegisteredClientRepository;
import org.springframework.security.oauth2.server.authorization.oidc.authentication.OidcLogoutAuthenticationProvider;
import org.springframework.security.oauth2.server.authorization.settings.AuthorizationServerSettings;
import org.springframework.security.oauth2.server.authorization.settings.ClientSettings;
import org.springframework.security.oauth2.server.authorization.token.JwtEncodingContext;
import org.springframework.security.oauth2.server.authorization.token.OAuth2TokenCustomizer;
import org.springframework.security.provisioning.InMemoryUserDetailsManager;
import org.springframework.security.web.SecurityFilterChain;
import org.springframework.security.web.authentication.LoginUrlAuthenticationEntryPoint;
import org.springframework.security.web.context.HttpSessionSecurityContextRepository;
import org.springframework.security.web.context.SecurityContextHolderFilter;
import org.springframework.security.web.util.matcher.MediaTypeRequestMatcher;
import org.springframework.web.filter.GenericFilterBean;

/**
 * A company's own sign-in, played on loopback: OpenID Connect with discovery, authorization code and PKCE. Everybody's
 * password is the demo's. {@code POST /fault?named=} asks for a {@link ProviderFault}.
 */
@SpringBootConfiguration(proxyBeanMethods = false)
@EnableAutoConfiguration
public class ProviderStandIn {
    /** What Mossbank is called here. */
    public static final String CLIENT = "mossbank";

    private static final String PASSWORD = "{noop}tide and lantern";

    /** Whom it knows, and the groups they are in. */
    private static final Map<String, List<String>> PEOPLE = Map.of(
            "wren", List.of("staff", "model-leads"),
            "odile", List.of("staff"),
            "bram", List.of("staff"),
            "spare", List.of(),
            "anders", List.of("staff", "model-keepers"));

    /** Stands in for a name where somebody has none. */
    private static final Map<String, String> NAMES = Map.of(
            "wren", "Wren Aldous",
            "odile", "Odile Marchand",
            "bram", "Bram Okkers",
            "anders", "Anders Lund");

    private volatile ProviderFault fault = ProviderFault.NONE;
    private final SigningKeys keys = new SigningKeys();

    @Bean
    @Order(1)
    SecurityFilterChain protocol(HttpSecurity http) throws Exception {
        return http.oauth2AuthorizationServer(server -> {
                    http.securityMatcher(server.getEndpointsMatcher());
                    server.oidc(oidc -> oidc.logoutEndpoint(logout ->
                            logout.authenticationProviders(providers -> providers.forEach(provider -> {
                                if (provider instanceof OidcLogoutAuthenticationProvider out) {
                                    // Tests listen at any port.
                                    out.setAuthenticationValidator(context -> {});
                                }
                            }))));
                })
                .authorizeHttpRequests(requests -> requests.anyRequest().authenticated())
                .exceptionHandling(e -> e.defaultAuthenticationEntryPointFor(
                        new LoginUrlAuthenticationEntryPoint("/login"),
                        new MediaTypeRequestMatcher(MediaType.TEXT_HTML)))
                .addFilterBefore(away(), SecurityContextHolderFilter.class)
                .build();
    }

    private GenericFilterBean away() {
        return new GenericFilterBean() {
            @Override
            public void doFilter(
                    jakarta.servlet.ServletRequest request,
                    jakarta.servlet.ServletResponse response,
                    jakarta.servlet.FilterChain chain)
                    throws java.io.IOException, jakarta.servlet.ServletException {
                if (fault == ProviderFault.UNREACHABLE) {
                    ((HttpServletResponse) response).setStatus(HttpStatus.SERVICE_UNAVAILABLE.value());
                } else {
                    askAgain((HttpServletRequest) request);
                    chain.doFilter(request, response);
                }
            }
        };
    }

    /** Whoever is to be asked again is nobody until they have answered; once for each request. */
    private static void askAgain(HttpServletRequest request) {
        if ("login".equals(request.getParameter("prompt"))) {
            HttpSession session = request.getSession();
            String asked = "asked-" + request.getParameter("state");
            if (session.getAttribute(asked) == null) {
                session.setAttribute(asked, true);
                session.removeAttribute(HttpSessionSecurityContextRepository.SPRING_SECURITY_CONTEXT_KEY);
            }
        }
    }

    @Bean
    @Order(2)
    SecurityFilterChain people(HttpSecurity http) throws Exception {
        return http.authorizeHttpRequests(requests -> requests.requestMatchers(HttpMethod.POST, "/fault")
                        .permitAll()
                        .anyRequest()
                        .authenticated())
                .csrf(csrf -> csrf.ignoringRequestMatchers("/fault"))
                .addFilterBefore(faults(), SecurityContextHolderFilter.class)
                .formLogin(Customizer.withDefaults())
                .build();
    }

    private GenericFilterBean faults() {
        return new GenericFilterBean() {
            @Override
            public void doFilter(
                    jakarta.servlet.ServletRequest request,
                    jakarta.servlet.ServletResponse response,
                    jakarta.servlet.FilterChain chain)
                    throws java.io.IOException, jakarta.servlet.ServletException {
                if (((HttpServletRequest) request).getRequestURI().equals("/fault")) {
                    ask(ProviderFault.named(String.valueOf(request.getParameter("named"))));
                } else {
                    chain.doFilter(request, response);
                }
            }
        };
    }

    private void ask(ProviderFault asked) {
        if (asked == ProviderFault.ROTATED_KEYS) {
            keys.rotate();
        }
        fault = asked;
    }

    @Bean
    UserDetailsService users() {
        return new InMemoryUserDetailsManager(PEOPLE.keySet().stream()
                .map(name -> User.withUsername(name).password(PASSWORD).build())
                .toArray(UserDetails[]::new));
    }

    @Bean
    RegisteredClientRepository clients(Environment environment) {
        return new InMemoryRegisteredClientRepository(RegisteredClient.withId(CLIENT)
                .clientId(CLIENT)
                .clientSecret("{noop}" + environment.getRequiredProperty("PROVIDER_SECRET"))
                .clientAuthenticationMethod(ClientAuthenticationMethod.CLIENT_SECRET_BASIC)
                .authorizationGrantType(AuthorizationGrantType.AUTHORIZATION_CODE)
                // On loopback any port is as good (RFC 8252, section 7.3).
                .redirectUri("http://127.0.0.1/api/sign-in/harbour/back")
                .scope("openid")
                .scope("profile")
                .clientSettings(ClientSettings.builder()
                        .requireProofKey(true)
                        .requireAuthorizationConsent(false)
                        .build())
                .build());
    }

    @Bean
    AuthorizationServerSettings settings(Environment environment) {
        return AuthorizationServerSettings.builder()
                .issuer("http://127.0.0.1:" + environment.getRequiredProperty("server.port"))
                .build();
    }

    @Bean
    JWKSource<SecurityContext> published() {
        return (selector, context) -> selector.select(keys.published());
    }

    @Bean
    JwtEncoder encoder() {
        return new NimbusJwtEncoder((selector, context) -> selector.select(keys.signing(fault)));
    }

    @Bean
    OAuth2TokenCustomizer<JwtEncodingContext> told() {
        return context -> {
            Authentication principal = context.getPrincipal();
            String name = Objects.requireNonNull(principal).getName();
            var claims = context.getClaims();
            claims.claim("preferred_username", name)
                    .claim("name", NAMES.getOrDefault(name, name))
                    .claim("email", "shared@harbour.example")
                    .claim("email_verified", false)
                    .claim("groups", PEOPLE.getOrDefault(name, List.of()));
            switch (fault) {
                case WRONG_NONCE -> claims.claim("nonce", UUID.randomUUID().toString());
                case EXPIRED -> {
                    Instant then = Instant.now().minus(Duration.ofHours(2));
                    claims.issuedAt(then).expiresAt(then.plus(Duration.ofMinutes(5)));
                }
                case OTHER_ISSUER -> claims.issuer("https://elsewhere.example");
                case OTHER_AUDIENCE -> claims.audience(List.of("somebody-else"));
                default -> {}
            }
        };
    }

    /** Arguments: the port. The secret of the one client comes from the environment, PROVIDER_SECRET. */
    public static void main(String[] arguments) {
        if (arguments.length != 1) {
            throw new IllegalArgumentException("give a port");
        }
        new SpringApplicationBuilder(ProviderStandIn.class)
                .properties(Map.of(
                        "server.port", arguments[0],
                        "server.address", "127.0.0.1",
                        // Cookies know no ports: another server on this machine has a session, too.
                        "server.servlet.session.cookie.name", "provider-session",
                        "spring.main.banner-mode", "off",
                        "logging.level.root", "warn"))
                .run();
    }
}
