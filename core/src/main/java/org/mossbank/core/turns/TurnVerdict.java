package org.mossbank.core.turns;

/** Whether a reply does what was asked, as a person found it. */
public enum TurnVerdict {
    DOES,
    DOES_NOT,
    /** It does not, and says so itself. */
    GAVE_UP,
    /** It does not, and says that it does. */
    SAID_DONE;

    public boolean does() {
        return this == DOES;
    }
}
