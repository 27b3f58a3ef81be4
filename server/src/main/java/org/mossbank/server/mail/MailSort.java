package org.mossbank.server.mail;

/** Which letters there are. */
public enum MailSort {
    /** With a one-time link, to somebody who has never been here. */
    INVITATION(true),
    /** With a one-time link, to somebody who lost their password. */
    PASSWORD_LOST(false),
    /** Asks whether an address is right. */
    ADDRESS(true),
    /** A lead reminds of sheets. */
    REMINDER(false),
    /** What waits, once a day at most. */
    DIGEST(false);

    private final boolean toUnconfirmed;

    MailSort(boolean toUnconfirmed) {
        this.toUnconfirmed = toUnconfirmed;
    }

    /** Whether it goes to an address of which nobody knows yet whose it is. */
    boolean isToUnconfirmed() {
        return toUnconfirmed;
    }
}
