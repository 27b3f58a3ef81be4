package org.mossbank.server.study;

import java.util.Locale;

/** What a person is in a study. */
public enum Role {
    LEAD,
    RATER,
    /** Sees what raters see once the round is closed, and grades nothing. */
    READER;

    /** As others read it. */
    public String inWords() {
        return name().toLowerCase(Locale.ROOT);
    }
}
