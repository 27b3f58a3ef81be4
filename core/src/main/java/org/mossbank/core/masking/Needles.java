package org.mossbank.core.masking;

import java.util.Arrays;
import java.util.Collection;
import java.util.HashSet;
import java.util.Set;

/**
 * Words that are looked for in many texts, all in one pass. Of words and texts alike letters and digits alone count, in lower case:
 * what no separator or emphasis can hide.
 *
 * <p>Cost: linear in the text, times the few words that begin as it does at a place. Loops are over arrays and call nothing for
 * most characters: the first texts that a server searches are read before its compiler has come to this.
 */
final class Needles {
    /** A power of two, well above the number of words. */
    private static final int PLACES = 1 << 12;

    private static final int SPREAD = 37;
    private static final int ASCII = 128;
    private static final int CASE = 'a' - 'A';

    /** By how a word begins. */
    private final char[][][] byBeginning = new char[PLACES][0][];

    /** @throws IllegalArgumentException if a word has less than two letters */
    Needles(Collection<String> words) {
        for (String word : Set.copyOf(words)) {
            char[] letters = letters(word);
            if (letters.length < 2) {
                throw new IllegalArgumentException("a word to look for has at least two letters");
            }
            int place = place(letters[0], letters[1]);
            char[][] alike = Arrays.copyOf(byBeginning[place], byBeginning[place].length + 1);
            alike[alike.length - 1] = letters;
            byBeginning[place] = alike;
        }
    }

    private static int place(char first, char second) {
        return (first * SPREAD + second) & (PLACES - 1);
    }

    /** Those that stand in a text, in lower case. */
    Set<String> in(CharSequence text) {
        char[] letters = letters(text);
        Set<String> found = new HashSet<>();
        for (int i = 1; i < letters.length; i++) {
            char[][] perhaps = byBeginning[place(letters[i - 1], letters[i])];
            if (perhaps.length > 0) {
                addThoseAt(letters, i - 1, perhaps, found);
            }
        }
        return found;
    }

    private static void addThoseAt(char[] letters, int from, char[][] perhaps, Set<String> found) {
        for (char[] word : perhaps) {
            int to = from + word.length;
            if (to <= letters.length && Arrays.equals(letters, from, to, word, 0, word.length)) {
                found.add(String.valueOf(word));
            }
        }
    }

    static char[] letters(CharSequence text) {
        char[] all = text.toString().toCharArray();
        int kept = 0;
        for (int i = 0; i < all.length; i++) {
            char c = all[i];
            if (c >= 'a' && c <= 'z' || c >= '0' && c <= '9') {
                all[kept++] = c;
            } else if (c >= 'A' && c <= 'Z') {
                all[kept++] = (char) (c + CASE);
            } else if (c >= ASCII) {
                int point = Character.codePointAt(all, i);
                // What is kept never catches up with what is read: no letter has more characters in lower case.
                i += Character.charCount(point) - 1;
                if (Character.isLetterOrDigit(point)) {
                    kept += Character.toChars(lower(point), all, kept);
                }
            }
        }
        return Arrays.copyOf(all, kept);
    }

    private static int lower(int point) {
        return Character.toLowerCase(Character.toUpperCase(point));
    }
}
