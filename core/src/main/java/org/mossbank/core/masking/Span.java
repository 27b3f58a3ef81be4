package org.mossbank.core.masking;

import org.mossbank.core.estimate.Require;

/**
 * A stretch of a text.
 *
 * @param from first character, from 0
 * @param to   after the last character; more than {@code from}
 */
public record Span(int from, int to) {
    /** @throws IllegalArgumentException if the stretch is empty or begins before the text */
    public Span {
        Require.atLeast("from", 0, from);
        Require.atLeast("to", from + 1, to);
    }

    public boolean overlaps(Span other) {
        return from < other.to && other.from < to;
    }

    public String of(CharSequence text) {
        return text.subSequence(from, to).toString();
    }
}
