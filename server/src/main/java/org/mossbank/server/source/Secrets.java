package org.mossbank.server.source;

import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.springframework.boot.context.properties.ConfigurationProperties;

/**
 * Secrets that the server's administrator gives in its environment, as MOSSBANK_SECRETS_ and a name. Leads see the names only;
 * the values leave the server in requests to sources alone.
 */
@ConfigurationProperties("mossbank")
record Secrets(Map<String, String> secrets) {
    private static final Pattern PLACEHOLDER = Pattern.compile("\\[\\[secret ([A-Za-z0-9_]+)]]");
    private static final String HIDDEN = "(secret)";
    /** Shorter values would be found in ordinary words. */
    private static final int SHORTEST_HIDDEN = 6;

    Secrets {
        Map<String, String> byName = new TreeMap<>();
        // The environment's underscores come as dots.
        if (secrets != null) {
            secrets.forEach((name, value) -> byName.put(canonical(name), value));
        }
        secrets = Map.copyOf(byName);
    }

    private static String canonical(String name) {
        return name.replaceAll("[^A-Za-z0-9]", "_").toUpperCase(java.util.Locale.ROOT);
    }

    List<String> names() {
        return secrets.keySet().stream().sorted().toList();
    }

    /** The first name in a header's value that the administrator did not give. */
    Optional<String> unknownIn(String value) {
        return PLACEHOLDER
                .matcher(value)
                .results()
                .map(m -> m.group(1))
                .filter(n -> !secrets.containsKey(canonical(n)))
                .findFirst();
    }

    /** @throws IllegalStateException if a name is not known */
    String fill(String value) {
        return PLACEHOLDER.matcher(value).replaceAll(m -> {
            String secret = secrets.get(canonical(m.group(1)));
            if (secret == null) {
                throw new IllegalStateException("the secret " + m.group(1) + " is not in the server's environment");
            }
            return Matcher.quoteReplacement(secret);
        });
    }

    /** Without any secret that a service may have sent back. */
    String hide(String text) {
        String hidden = text;
        for (String secret : secrets.values()) {
            if (secret.length() >= SHORTEST_HIDDEN) {
                hidden = hidden.replace(secret, HIDDEN);
            }
        }
        return hidden;
    }

    @Override
    public String toString() {
        return "Secrets" + names();
    }
}
