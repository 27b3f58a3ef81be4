package org.mossbank.core.masking;

/**
 * A stretch that gives a candidate away.
 *
 * @param span        where it stands
 * @param sort        what gives it away
 * @param replacement what could stand there instead; in code a word that the code may hold
 */
public record GiveAway(Span span, Sort sort, String replacement) {
    /** From the plainest to the most likely false alarm; where stretches overlap, the longer counts, then the earlier. */
    public enum Sort {
        NAME,
        VENDOR,
        VERSION,
        SIGNATURE,
        SELF_INTRODUCTION
    }
}
