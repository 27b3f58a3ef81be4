package org.mossbank.core.page;

/**
 * What must be seen of a page, or must not.
 *
 * @param role   as browsers compute it; empty for a text
 * @param name   as browsers compute it
 * @param text   that stands on the page; empty for the others
 * @param absent whether it must not be there
 */
public record PageSight(How how, String role, String name, String text, boolean absent) {
    /** What is looked at. */
    public enum How {
        TEXT,
        /** Something that can be seen, by its role and name. */
        ROLE,
        /** What keys go to. */
        FOCUS
    }

    /**
     * What is wrong where it was not as it must be, in words.
     *
     * @param focus what had the focus
     */
    String missed(String focus) {
        String what = how == How.TEXT ? "“" + text + "”" : role + " “" + name + "”";
        return switch (how) {
            case TEXT, ROLE -> what + (absent ? " is there, and must not be" : " is not there");
            case FOCUS ->
                absent
                        ? "the focus is on " + what + ", and must not be"
                        : "the focus is on " + focus + ", not on " + what;
        };
    }
}
