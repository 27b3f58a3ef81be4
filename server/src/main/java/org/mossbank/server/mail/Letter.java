package org.mossbank.server.mail;

/**
 * What somebody reads.
 *
 * @param subject one line
 * @param text    plain, with one link
 */
public record Letter(String subject, String text) {
    /** Without the text, which may hold a link that lets somebody in. */
    @Override
    public String toString() {
        return "Letter[" + subject + "]";
    }
}
