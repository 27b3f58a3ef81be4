package org.mossbank.core.secrets;

/**
 * Something in a text that looks like a secret.
 *
 * @param line  from 1
 * @param value as it stands in the text: for comparing and hashing, never to be shown
 */
public record FoundSecret(int line, Sort sort, String value) {
    /** What it looks like. */
    public enum Sort {
        /** A private key in its armour. */
        PRIVATE_KEY,
        /** What is assigned to a name that speaks of a password, a secret, a token or a key. */
        NAMED,
        /** An address with a name and a password in it. */
        ADDRESS,
        /** A token that says what it is for in three parts, signed. */
        SIGNED_TOKEN,
        /** Letters and digits without any order, as long as a key is. */
        RANDOM,
        /** All that comes after so many that nobody would read them one by one. */
        MANY
    }

    private static final int SHOWN = 3;

    /** Enough to find it by, and too little to use it. */
    public String hint() {
        return value.codePoints()
                        .limit(Math.min(SHOWN, value.length() / (2 * SHOWN)))
                        .collect(StringBuilder::new, StringBuilder::appendCodePoint, StringBuilder::append)
                + "…";
    }

    @Override
    public String toString() {
        return "FoundSecret[line=%d, sort=%s, %s]".formatted(line, sort, hint());
    }
}
