package org.mossbank.core.change;

/**
 * A file as it is after an answer's changes, or a block of code that belongs to no file.
 *
 * @param path   below the starting code; for a block, what it is called
 * @param text   whole
 * @param before whole, as it was in the starting code; empty if it was not there
 */
public record CodeFile(String path, Sort sort, String text, String before) {
    /** Where the code comes from. */
    public enum Sort {
        CHANGED,
        ADDED,
        REMOVED,
        /** A block in the answer that no file of the starting code is printed in. */
        BLOCK
    }
}
