package org.mossbank.core.hostile;

import java.util.function.IntFunction;

/** Texts of any length that are made to keep a reader busy. */
public final class HostileTexts {
    /** As long as an answer may be; a quarter of it in the everyday check, where what is counted grows just as much too fast. */
    public static final int LONGEST = Boolean.getBoolean("mossbank.long") ? 4 << 20 : 1 << 20;

    private HostileTexts() {}

    /** A name, then a function from a length to a text of about that length. */
    public static Object[][] all() {
        return new Object[][] {
            {"one long word", of(n -> "a".repeat(n))},
            {"one long line of words", repeated("a ")},
            {"a fence, and one long line in it", of(n -> "```java\n" + "a".repeat(n) + "\n```\n")},
            {"a fence, and a path without an end", of(n -> "```java\n" + "a/".repeat(n / 2) + "\n```\n")},
            {"a maker of many words", of(n -> "I was created by " + "A ".repeat(n / 2))},
            {"makers again and again", repeated("I was created by A A A A A A A A A A A A A A ")},
            {"adjectives without an end", of(n -> "as an " + "AI ".repeat(n / 3))},
            {"adjectives again and again", repeated("as an AI AI AI AI AI AI AI AI AI AI ")},
            {"an author of one long word", of(n -> "written by " + "a".repeat(n))},
            {"authors again and again", repeated("written by ")},
            {"authors with long words", repeated("written by " + "a".repeat(150) + " ")},
            {"signatures again and again", repeated("@author ")},
            {"backticks in runs of every length", of(HostileTexts::runs)},
            {"backticks in one run", repeated("`")},
            {"code in a line beside a name", repeated("`x` Osier ")},
            {"a name again and again", repeated("Quillwort ")},
            {"a name with much between its letters", of(n -> "Q" + "*".repeat(n) + "uillwort")},
            {"the first letter of a name with much behind it", repeated("q" + "*".repeat(40))},
            {"near misses of a name", repeated("Quillwor ")},
            {"letters that become two when they are made small", repeated("İ")},
            {"blanks", repeated(" ")},
            {"blanks after a phrase", of(n -> "I am" + " ".repeat(n) + "a model")},
            {"a phrase that begins again and again", repeated("I am a ")},
            {"fences that open again and again", repeated("```\n")},
            {"fences of every length", of(n -> runs(n).replace(" ", "\n"))},
            {"lines without an end", repeated("\n")},
            {"types without a name", of(n -> "```java\n" + "class ".repeat(n / 6) + "\n```\n")},
            {"quotes within quotes", repeated(">")},
            {"fences left open in quotes", repeated("> ```\n\n")},
            {"fences left open in lists", repeated("- ```\n")},
            {"lists within lists", repeated("- ")},
            {"links that begin and do not end", repeated("[a]: <\n")},
            {"a paragraph of short lines", repeated("ab\n")},
            {"lists that go on", repeated("2) ab\n")},
            {"lists that do not begin within a paragraph", of(n -> "ab\n" + "2) ab\n".repeat(n / 6))},
            {"a title that never ends", of(n -> "[a]: b '\n" + "c\n".repeat(n / 2))},
            {"rows of dashes", repeated("a\n- -\n")},
        };
    }

    private static IntFunction<String> of(IntFunction<String> text) {
        return text;
    }

    private static IntFunction<String> repeated(String part) {
        return n -> part.repeat(Math.max(1, n / part.length()));
    }

    private static String runs(int length) {
        StringBuilder runs = new StringBuilder();
        for (int i = 1; runs.length() + i < length; i++) {
            runs.append("`".repeat(i)).append(' ');
        }
        return runs.toString();
    }
}
