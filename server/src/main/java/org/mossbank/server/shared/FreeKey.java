package org.mossbank.server.shared;

import java.text.Normalizer;
import java.util.Locale;
import java.util.Set;

/** Makes keys that name things within a study, from the names that people gave them. */
public final class FreeKey {
    /** What a key looks like, as a regular expression over all of it. */
    public static final String FORM = "[a-z0-9][a-z0-9._-]{0,79}";

    private static final int LONGEST = 60;

    private FreeKey() {}

    /**
     * @param otherwise what to start from if the name has no letter or digit
     * @param known     keys that are taken
     * @return lower-case letters, digits and lines, at most 60 and a number
     */
    public static String of(String name, String otherwise, Set<String> known) {
        String plain = Normalizer.normalize(name, Normalizer.Form.NFD)
                .toLowerCase(Locale.ROOT)
                .replaceAll("\\p{M}", "")
                .replaceAll("[^a-z0-9]+", "-")
                .replaceAll("^-+|-+$", "");
        String base = plain.isEmpty() ? otherwise : plain.substring(0, Math.min(LONGEST, plain.length()));
        String key = base;
        for (int n = 2; known.contains(key); n++) {
            key = base + "-" + n;
        }
        return key;
    }

    /**
     * The key once a name has changed: a new one, if the old was made of the old name and nobody has used it.
     *
     * @param others keys of the others
     */
    public static String following(String key, String before, String now, String otherwise, Set<String> others) {
        return of(before, otherwise, others).equals(key) ? of(now, otherwise, others) : key;
    }
}
