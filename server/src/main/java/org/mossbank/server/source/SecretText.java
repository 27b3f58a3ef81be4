package org.mossbank.server.source;

import java.nio.charset.StandardCharsets;
import java.util.Arrays;
import java.util.Base64;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/**
 * One secret in whatever form a service may send it back: as it is; with blanks or signs between its characters; with some
 * of them written as JSON, a web address or HTML write them; and within a text in base64.
 *
 * <p>Cost: linear in the text, times the length of the secret.
 */
final class SecretText {
    static final String HIDDEN = "(secret)";

    /** Between two characters; more would be found in ordinary words. */
    private static final String BETWEEN = "[\\s\\u00AD\\u200B-\\u200D\\u2060\\uFEFF.,:;|_-]{0,3}?";

    private static final int SHORTEST_ENCODED = 12;

    /** Of a secret that is cut off at the end of a text, so much and more is hidden. */
    private static final int LEAST_OF_A_CUT = 4;

    private final String secret;
    private final Pattern written;

    SecretText(String secret) {
        this.secret = secret;
        this.written =
                Pattern.compile(secret.codePoints().mapToObj(SecretText::forms).collect(Collectors.joining(BETWEEN)));
    }

    private static String forms(int character) {
        String plain = new String(Character.toChars(character));
        String percent = percent(plain);
        String json = plain.chars().mapToObj("\\\\u%04x"::formatted).collect(Collectors.joining());
        return "(?:" + Pattern.quote(plain) + "|\\\\" + Pattern.quote(plain) + "|(?i:" + percent + ")|(?i:" + json
                + ")|&#" + character + ";" + (character == ' ' ? "|\\+" : "") + ")";
    }

    private static String percent(String plain) {
        StringBuilder percent = new StringBuilder();
        for (byte b : plain.getBytes(StandardCharsets.UTF_8)) {
            percent.append("%%%02x".formatted(b & 0xFF));
        }
        return percent.toString();
    }

    String hiddenIn(String text) {
        return hiddenInBase64(written.matcher(text).replaceAll(Matcher.quoteReplacement(HIDDEN)));
    }

    /** Also what a text that still comes may end with: the beginning of the secret. */
    String hiddenInPart(String text) {
        String hidden = hiddenIn(text);
        for (int length = Math.min(secret.length() - 1, hidden.length()); length >= LEAST_OF_A_CUT; length--) {
            if (hidden.endsWith(secret.substring(0, length))) {
                return hidden.substring(0, hidden.length() - length) + HIDDEN;
            }
        }
        return hidden;
    }

    /** Looks into each run of characters that could be base64, whatever it begins with. */
    private String hiddenInBase64(String text) {
        StringBuilder hidden = new StringBuilder();
        int at = 0;
        while (at < text.length()) {
            int to = at;
            while (to < text.length() && isBase64(text.charAt(to))) {
                to++;
            }
            String run = text.substring(at, to);
            hidden.append(run.length() >= SHORTEST_ENCODED && encodes(run) ? HIDDEN : run);
            if (to < text.length()) {
                hidden.append(text.charAt(to));
            }
            at = to + 1;
        }
        return hidden.toString();
    }

    private static boolean isBase64(char c) {
        return c < 128 && (Character.isLetterOrDigit(c) || c == '+' || c == '/' || c == '-' || c == '_');
    }

    /** The run may begin at any of the four places in a group. */
    private boolean encodes(String run) {
        String plain = run.replace('-', '+').replace('_', '/');
        byte[] sought = secret.getBytes(StandardCharsets.UTF_8);
        for (int skipped = 0; skipped < 4 && plain.length() - skipped >= 4; skipped++) {
            int whole = (plain.length() - skipped) / 4 * 4;
            byte[] decoded = Base64.getDecoder().decode(plain.substring(skipped, skipped + whole));
            String rest = plain.substring(skipped + whole);
            byte[] all = decoded;
            if (rest.length() > 1) {
                byte[] last = Base64.getDecoder().decode(rest);
                all = Arrays.copyOf(decoded, decoded.length + last.length);
                System.arraycopy(last, 0, all, decoded.length, last.length);
            }
            // One character a byte: so bytes can be sought as text is.
            if (new String(all, StandardCharsets.ISO_8859_1)
                    .contains(new String(sought, StandardCharsets.ISO_8859_1))) {
                return true;
            }
        }
        return false;
    }
}
