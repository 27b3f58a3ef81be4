package org.mossbank.server.readback;

/** Whether a reader took a prompt as it was meant. */
public enum ReadBackVerdict {
    UNDERSTOOD,
    UNCLEAR
}
