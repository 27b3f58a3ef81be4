package org.mossbank.server.source;

import java.net.URI;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Secrets that the server's administrator gives in its environment, as MOSSBANK_SECRETS_ and a name, each with the hosts that
 * it may be sent to, as MOSSBANK_HOSTS_ and the same name. Leads see the names only; the values leave the server in requests
 * to those hosts alone, and are hidden in whatever comes back.
 *
 * @param secrets by name
 * @param hosts   by name: names or addresses of hosts, with a port or without, separated by commas
 */
@ConfigurationProperties("mossbank")
record Secrets(Map<String, String> secrets, Map<String, String> hosts) {
    private static final Pattern PLACEHOLDER = Pattern.compile("\\[\\[secret ([A-Za-z0-9_]{1,100})]]");

    /** Shorter values would be found in ordinary words, and could not be hidden. */
    private static final int SHORTEST = 8;

    private static final Map<String, SecretText> TEXTS = new java.util.concurrent.ConcurrentHashMap<>();

    /** @throws IllegalArgumentException if a secret is too short to be hidden; its value is not told */
    Secrets {
        secrets = byName(secrets);
        hosts = byName(hosts);
        secrets.forEach((name, value) -> {
            if (value.length() < SHORTEST) {
                throw new IllegalArgumentException(
                        "MOSSBANK_SECRETS_" + name + " must have " + SHORTEST + " characters or more");
            }
        });
    }

    /** The environment's underscores come as dots. */
    private static Map<String, String> byName(@Nullable Map<String, String> given) {
        Map<String, String> byName = new TreeMap<>();
        if (given != null) {
            given.forEach((name, value) -> byName.put(canonical(name), value));
        }
        return Map.copyOf(byName);
    }

    private static String canonical(String name) {
        return name.replaceAll("[^A-Za-z0-9]", "_").toUpperCase(Locale.ROOT);
    }

    List<String> names() {
        return secrets.keySet().stream().sorted().toList();
    }

    /** The first name in a header's value that the administrator did not give. */
    Optional<String> unknownIn(String value) {
        return named(value).filter(n -> !secrets.containsKey(canonical(n))).findFirst();
    }

    /** The first secret in a header's value that may not be sent to an address. */
    Optional<String> notFor(String url, String value) {
        return named(value).filter(n -> !isFor(n, url)).findFirst();
    }

    private static java.util.stream.Stream<String> named(String value) {
        return PLACEHOLDER.matcher(value).results().map(m -> m.group(1));
    }

    private boolean isFor(String name, String url) {
        URI address = URI.create(url);
        String host = String.valueOf(address.getHost()).toLowerCase(Locale.ROOT);
        int port =
                address.getPort() >= 0 ? address.getPort() : address.getScheme().equals("https") ? 443 : 80;
        Set<String> allowed = Arrays.stream(
                        hosts.getOrDefault(canonical(name), "").split(","))
                .map(h -> h.strip().toLowerCase(Locale.ROOT))
                .collect(Collectors.toSet());
        return allowed.contains(host) || allowed.contains(host + ":" + port);
    }

    /** @throws IllegalStateException if a name is not known, or may not be sent to the address */
    String fill(String url, String value) {
        return PLACEHOLDER.matcher(value).replaceAll(m -> {
            String secret = secrets.get(canonical(m.group(1)));
            if (secret == null || !isFor(m.group(1), url)) {
                throw new IllegalStateException("the secret " + m.group(1) + " may not be sent there");
            }
            return Matcher.quoteReplacement(secret);
        });
    }

    /** Without any secret that a service may have sent back, in whatever form. */
    String hide(String text) {
        String hidden = text;
        for (SecretText secret : texts()) {
            hidden = secret.hiddenIn(hidden);
        }
        return hidden;
    }

    /** The same for a text that still comes, and may end within a secret. */
    String hideSoFar(String text) {
        String hidden = text;
        for (SecretText secret : texts()) {
            hidden = secret.hiddenInPart(hidden);
        }
        return hidden;
    }

    private List<SecretText> texts() {
        Map<String, SecretText> own = new HashMap<>();
        secrets.values().forEach(s -> own.put(s, TEXTS.computeIfAbsent(s, SecretText::new)));
        return List.copyOf(own.values());
    }

    @Override
    public String toString() {
        return "Secrets" + names();
    }
}
