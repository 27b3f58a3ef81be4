package org.mossbank.server.shared.settings;

import java.util.Arrays;
import java.util.List;
import java.util.Set;
import java.util.function.Predicate;
import java.util.regex.Pattern;
import org.springframework.boot.convert.DurationStyle;

/** What the value of a setting must look like; an empty one stands for its usual value. */
enum SettingType {
    TEXT("words", v -> true),
    SECRET("a secret", v -> true),
    PORT("a port, 1 to 65535", v -> whole(v, 1, 65_535)),
    NUMBER("a whole number, 0 or more", v -> whole(v, 0, 1_000_000)),
    COUNT("a whole number, 1 or more", v -> whole(v, 1, 1_000_000)),
    SWITCH("true or false", v -> Set.of("true", "false").contains(v)),
    DURATION("a time, as 30d, 12h or 10m", SettingType::isDuration),
    MEMORY("an amount of memory, as 1g or 800m", v -> v.matches("[1-9]\\d{0,5}[mMgG]")),
    NUMERIC_ADDRESSES(
            "numeric addresses, separated by commas",
            v -> all(v, Pattern.compile("\\d{1,3}(\\.\\d{1,3}){3}|[0-9a-fA-F:.]*:[0-9a-fA-F:.]*"))),
    WEB_ADDRESS("an address that begins with https:// or http://", v -> v.matches("https?://[^\\s/]\\S*")),
    DATABASE_ADDRESS("an address that begins with jdbc:postgresql://", v -> v.startsWith("jdbc:postgresql://")),
    PATH("a path that begins with / and does not end with it", v -> v.matches("(/[A-Za-z0-9._~-]+)+")),
    FOLDER("a folder", v -> !v.contains("\u0000")),
    LIST("words, separated by commas", v -> true),
    MAIL_SECURITY(
            "NONE, STARTTLS or TLS", v -> Set.of("NONE", "STARTTLS", "TLS").contains(v)),
    LOG_FORMAT("ecs, gelf or logstash", v -> Set.of("ecs", "gelf", "logstash").contains(v));

    private final String words;
    private final Predicate<String> accepts;

    SettingType(String words, Predicate<String> accepts) {
        this.words = words;
        this.accepts = accepts;
    }

    /** What it must be, in words. */
    String words() {
        return words;
    }

    boolean accepts(String value) {
        return value.isEmpty() || accepts.test(value);
    }

    private static boolean whole(String value, int least, int most) {
        return value.matches("\\d{1,7}") && Integer.parseInt(value) >= least && Integer.parseInt(value) <= most;
    }

    private static boolean isDuration(String value) {
        try {
            return DurationStyle.detectAndParse(value).toMillis() > 0;
        } catch (IllegalArgumentException e) {
            return false;
        }
    }

    private static boolean all(String value, Pattern one) {
        List<String> parts = Arrays.stream(value.split(",")).map(String::strip).toList();
        return parts.stream().allMatch(p -> one.matcher(p).matches());
    }
}
