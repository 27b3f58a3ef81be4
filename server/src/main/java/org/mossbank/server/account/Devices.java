package org.mossbank.server.account;

import java.util.LinkedHashMap;
import java.util.Map;
import org.jspecify.annotations.Nullable;

/** Browser and system in two words, from what a browser says of itself: enough to know one's own again. */
final class Devices {
    /** In an order in which the first that is found is right: several name others as well. */
    private static final Map<String, String> BROWSERS = ordered(
            "Firefox/",
            "Firefox",
            "Edg/",
            "Edge",
            "OPR/",
            "Opera",
            "Chrome/",
            "Chrome or Chromium",
            "Safari/",
            "Safari");

    private static final Map<String, String> SYSTEMS = ordered(
            "Android",
            "Android",
            "iPhone",
            "iPhone",
            "iPad",
            "iPad",
            "Windows",
            "Windows",
            "Mac OS X",
            "macOS",
            "Linux",
            "Linux");

    private Devices() {}

    private static Map<String, String> ordered(String... pairs) {
        Map<String, String> map = new LinkedHashMap<>();
        for (int i = 0; i < pairs.length; i += 2) {
            map.put(pairs[i], pairs[i + 1]);
        }
        return map;
    }

    static String named(@Nullable String userAgent) {
        String said = userAgent == null ? "" : userAgent;
        return first(BROWSERS, said, "Another program")
                + first(SYSTEMS, said, "").replaceFirst("^(?=.)", ", ");
    }

    private static String first(Map<String, String> names, String said, String otherwise) {
        return names.entrySet().stream()
                .filter(e -> said.contains(e.getKey()))
                .map(Map.Entry::getValue)
                .findFirst()
                .orElse(otherwise);
    }
}
