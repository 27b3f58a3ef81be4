package org.mossbank.core.secrets;

import java.util.ArrayList;
import java.util.List;
import java.util.Set;

/**
 * Looks for secrets by their usual shapes. What is found need not be one, and what is none of these shapes is not found: it is a
 * second look, not a promise.
 *
 * <p>Reads each character a bounded number of times, whatever the text: each shape is looked for from where the last one ended, over a
 * bounded stretch.
 */
public final class Secrets {
    /** More than that is a text made of them; the rest is not listed. */
    public static final int MOST = 100;

    private static final int SHORTEST_NAMED = 6;
    private static final int SHORTEST_RANDOM = 20;
    private static final int LONGEST = 256;
    /** Bits a character: words and names have less, and what a generator made has more. */
    private static final double RANDOM_ENOUGH = 3.9;

    /** Of each of three sorts of characters: what was drawn at random has some of all. */
    private static final int OF_EACH_SORT = 2;

    private static final String KEY_BEGINS = "-----BEGIN ";
    private static final String KEY_ENDS = "PRIVATE KEY-----";
    private static final String SCHEME = "://";

    private static final List<String> NAMES = List.of(
            "password",
            "passwd",
            "passphrase",
            "pwd",
            "secret",
            "token",
            "apikey",
            "api_key",
            "api-key",
            "accesskey",
            "access_key",
            "access-key",
            "privatekey",
            "private_key",
            "private-key",
            "credential");

    /** What stands where a secret will be, or where it is asked for. */
    private static final List<String> STAND_INS = List.of(
            "${",
            "{{",
            "<",
            "***",
            "xxx",
            "changeme",
            "change-me",
            "example",
            "your",
            "dummy",
            "placeholder",
            "todo",
            "getenv",
            "process.env",
            "environ");

    private static final Set<String> WORDS =
            Set.of("string", "char[]", "undefined", "required", "optional", "unknown", "boolean");

    private Secrets() {}

    /** In the order of their lines; of one line and value the first sort that it is. */
    public static List<FoundSecret> in(String text) {
        List<FoundSecret> found = new ArrayList<>();
        int number = 0;
        for (int from = 0; from <= text.length() && found.size() < MOST; ) {
            int end = text.indexOf('\n', from);
            String line = text.substring(from, end < 0 ? text.length() : end);
            number++;
            new Line(line, number, found).look();
            from = end < 0 ? text.length() + 1 : end + 1;
        }
        return List.copyOf(found.subList(0, Math.min(found.size(), MOST)));
    }

    /** One line, and where what is found in it goes. */
    private static final class Line {
        private final String text;
        private final String lower;
        private final int number;
        private final List<FoundSecret> found;
        private final int before;

        Line(String text, int number, List<FoundSecret> found) {
            this.text = text;
            this.lower = small(text);
            this.number = number;
            this.found = found;
            this.before = found.size();
        }

        /** Plain letters alone: others may grow, which moves places, and takes the square of a text's length. */
        private static String small(String text) {
            char[] small = text.toCharArray();
            for (int i = 0; i < small.length; i++) {
                if (small[i] >= 'A' && small[i] <= 'Z') {
                    small[i] += 'a' - 'A';
                }
            }
            return new String(small);
        }

        void look() {
            armoured();
            named();
            addressed();
            random();
        }

        private void add(FoundSecret.Sort sort, String value) {
            boolean known = found.subList(before, found.size()).stream()
                    .anyMatch(f -> f.value().contains(value) || value.contains(f.value()));
            if (!known && found.size() <= MOST) {
                found.add(new FoundSecret(number, sort, value));
            }
        }

        private void armoured() {
            int begin = text.indexOf(KEY_BEGINS);
            int end = begin < 0 ? -1 : text.indexOf(KEY_ENDS, begin);
            if (end >= 0 && end - begin < LONGEST) {
                add(FoundSecret.Sort.PRIVATE_KEY, text.substring(begin, end + KEY_ENDS.length()));
            }
        }

        private void named() {
            for (String name : NAMES) {
                for (int at = lower.indexOf(name); at >= 0 && found.size() <= MOST; at = lower.indexOf(name, at + 1)) {
                    String value = assigned(at + name.length());
                    if (isSecret(value)) {
                        add(FoundSecret.Sort.NAMED, value);
                    }
                }
            }
        }

        /** The literal that is assigned to the name that goes on here; empty if there is none. */
        private String assigned(int from) {
            int at = from;
            int last = Math.min(text.length(), from + LONGEST);
            while (at < last
                    && (Character.isLetterOrDigit(text.charAt(at)) || "_-\"'`)] ".indexOf(text.charAt(at)) >= 0)) {
                at++;
            }
            if (at == last || ":=".indexOf(text.charAt(at)) < 0) {
                return "";
            }
            while (at < last && ":=> \t".indexOf(text.charAt(at)) >= 0) {
                at++;
            }
            if (at < last && "\"'`".indexOf(text.charAt(at)) >= 0) {
                int end = text.indexOf(text.charAt(at), at + 1);
                return end < 0 || end - at > LONGEST ? "" : text.substring(at + 1, end);
            }
            return bare(at);
        }

        /** Without quotes, as files of settings have it; in code that is a name, not a value. */
        private String bare(int from) {
            int end = from;
            int last = Math.min(text.length(), from + LONGEST);
            while (end < last && !Character.isWhitespace(text.charAt(end))) {
                end++;
            }
            String value = text.substring(from, end);
            boolean isMixed =
                    value.chars().anyMatch(Character::isDigit) && value.chars().anyMatch(Character::isLetter);
            boolean isCode = value.chars().anyMatch(c -> "()[]{};,".indexOf(c) >= 0);
            return isMixed && !isCode && !value.contains(SCHEME) ? value : "";
        }

        private static boolean isStandIn(String value) {
            String small = small(value);
            return STAND_INS.stream().anyMatch(small::contains);
        }

        private static boolean isSecret(String value) {
            String small = small(value);
            return value.length() >= SHORTEST_NAMED
                    && value.chars().noneMatch(Character::isWhitespace)
                    && !isStandIn(value)
                    && !WORDS.contains(small)
                    // The name once more, as in labels and keys of settings.
                    && NAMES.stream().noneMatch(small::equals);
        }

        private void addressed() {
            for (int at = text.indexOf(SCHEME); at >= 0; at = text.indexOf(SCHEME, at + 1)) {
                int from = at + SCHEME.length();
                int last = Math.min(text.length(), from + LONGEST);
                int colon = -1;
                for (int i = from; i < last; i++) {
                    char c = text.charAt(i);
                    if (c == '@' && colon > 0 && i > colon + 1 && !isStandIn(text.substring(colon + 1, i))) {
                        add(FoundSecret.Sort.ADDRESS, text.substring(colon + 1, i));
                    }
                    if (c == '@' || c == '/' || c == '"' || c == '\'' || Character.isWhitespace(c)) {
                        break;
                    }
                    colon = c == ':' && colon < 0 ? i : colon;
                }
            }
        }

        private void random() {
            int from = 0;
            for (int at = 0; at <= text.length() && found.size() <= MOST; at++) {
                if (at < text.length() && isOfAKey(text.charAt(at))) {
                    continue;
                }
                if (at - from >= SHORTEST_RANDOM && at - from <= LONGEST) {
                    run(text.substring(from, at));
                }
                from = at + 1;
            }
        }

        private void run(String run) {
            if (run.startsWith("eyJ") && run.chars().filter(c -> c == '.').count() == 2) {
                add(FoundSecret.Sort.SIGNED_TOKEN, run);
            } else if (run.indexOf('.') < 0 && run.indexOf('/') < 0 && isMixed(run) && bits(run) >= RANDOM_ENOUGH) {
                add(FoundSecret.Sort.RANDOM, run);
            }
        }

        private static boolean isOfAKey(char c) {
            return c < 128 && (Character.isLetterOrDigit(c) || "_-+/=.".indexOf(c) >= 0);
        }

        private static boolean isMixed(String run) {
            return run.chars().filter(Character::isUpperCase).count() >= OF_EACH_SORT
                    && run.chars().filter(Character::isLowerCase).count() >= OF_EACH_SORT
                    && run.chars().filter(Character::isDigit).count() >= OF_EACH_SORT;
        }

        /** Shannon's entropy of its characters, in bits a character. */
        private static double bits(String run) {
            int[] counts = new int[128];
            run.chars().forEach(c -> counts[c]++);
            double bits = 0;
            for (int count : counts) {
                if (count > 0) {
                    double share = (double) count / run.length();
                    bits -= share * Math.log(share) / Math.log(2);
                }
            }
            return bits;
        }
    }
}
