package org.mossbank.core.change;

/**
 * A file as it is after an answer's changes, or a block of code that belongs to no file.
 *
 * @param path   below the starting code; for a block, what it is called
 * @param text   whole
 * @param before whole, as it was in the starting code; empty if it was not there
 */
public record CodeFile(String path, Sort sort, String text, String before) {
    private static final String BEFORE_LANGUAGE = ", ";

    /** A block by its number in the answer, from 1; the language may be empty. */
    static CodeFile block(int number, String language, String text) {
        String name = "Block " + number + (language.isEmpty() ? "" : BEFORE_LANGUAGE + language);
        return new CodeFile(name, Sort.BLOCK, text, "");
    }

    /** The language that a block says it is in; empty if it says none, and of a file. */
    public String language() {
        int at = path.indexOf(BEFORE_LANGUAGE);
        return sort == Sort.BLOCK && at >= 0 ? path.substring(at + BEFORE_LANGUAGE.length()) : "";
    }

    /** Where the code comes from. */
    public enum Sort {
        CHANGED,
        ADDED,
        REMOVED,
        /** A block in the answer that no file of the starting code is printed in. */
        BLOCK
    }
}
