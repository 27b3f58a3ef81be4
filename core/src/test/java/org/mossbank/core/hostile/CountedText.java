package org.mossbank.core.hostile;

/** A text that counts how often a character of it is read: work, which does not hang on the machine, in place of time. */
public final class CountedText implements CharSequence {
    private final CharSequence text;
    private final long[] reads;

    private CountedText(CharSequence text, long[] reads) {
        this.text = text;
        this.reads = reads;
    }

    public static CountedText of(String text) {
        return new CountedText(text, new long[1]);
    }

    public long reads() {
        return reads[0];
    }

    /** Reads for each character of the text. */
    public double readsEach() {
        return reads[0] / (double) text.length();
    }

    @Override
    public int length() {
        return text.length();
    }

    @Override
    public char charAt(int index) {
        reads[0]++;
        return text.charAt(index);
    }

    @Override
    public CharSequence subSequence(int start, int end) {
        return new CountedText(text.subSequence(start, end), reads);
    }

    /** Reads all of it. */
    @Override
    public String toString() {
        reads[0] += text.length();
        return text.toString();
    }
}
