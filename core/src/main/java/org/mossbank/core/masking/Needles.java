package org.mossbank.core.masking;

import java.util.Arrays;
import java.util.Collection;
import java.util.HashSet;
import java.util.Set;

/**
 * Words that are looked for in many texts, all in one pass.
 *
 * <p>Cost: linear in the text, times the few words that begin as it does at a place.
 */
final class Needles {
    /** A power of two, well above the number of words. */
    private static final int PLACES = 1 << 12;

    private static final int SPREAD = 37;

    /** By how a word begins. */
    private final String[][] byBeginning = new String[PLACES][0];

    /** @throws IllegalArgumentException if a word has less than two characters */
    Needles(Collection<String> words) {
        for (String word : Set.copyOf(words)) {
            if (word.length() < 2) {
                throw new IllegalArgumentException("a word to look for has at least two characters");
            }
            int place = place(word.charAt(0), word.charAt(1));
            byBeginning[place] = Arrays.copyOf(byBeginning[place], byBeginning[place].length + 1);
            byBeginning[place][byBeginning[place].length - 1] = word;
        }
    }

    private static int place(char first, char second) {
        return (first * SPREAD + second) & (PLACES - 1);
    }

    /** Those that stand in a text. */
    Set<String> in(String text) {
        Set<String> found = new HashSet<>();
        for (int i = 1; i < text.length(); i++) {
            for (String perhaps : byBeginning[place(text.charAt(i - 1), text.charAt(i))]) {
                if (text.startsWith(perhaps, i - 1)) {
                    found.add(perhaps);
                }
            }
        }
        return found;
    }
}
