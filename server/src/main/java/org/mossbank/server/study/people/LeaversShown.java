package org.mossbank.server.study.people;

/** What a study calls people who have left. */
public enum LeaversShown {
    BY_NAME("by their names"),
    BY_NUMBER("by numbers");

    private final String words;

    LeaversShown(String words) {
        this.words = words;
    }

    /** After "those who left are shown". */
    public String inWords() {
        return words;
    }
}
