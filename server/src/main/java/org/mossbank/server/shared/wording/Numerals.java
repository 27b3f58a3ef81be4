package org.mossbank.server.shared.wording;

import java.time.Instant;
import java.time.ZoneOffset;
import java.time.format.DateTimeFormatter;
import java.util.Locale;

/** How numbers and times stand in sentences. */
public final class Numerals {
    private static final DateTimeFormatter MOMENT =
            DateTimeFormatter.ofPattern("d MMMM uuuu, HH:mm 'UTC'", Locale.ENGLISH);
    private static final int FINE = 4;
    private static final int COARSE = 2;
    private static final double MS_A_SECOND = 1000;
    private static final long MS_A_MINUTE = 60_000;

    private Numerals() {}

    /** With so many decimals and a real minus sign. */
    public static String fixed(double value, int decimals) {
        String plain = String.format(Locale.ROOT, "%." + decimals + "f", value);
        boolean nothing = plain.chars().noneMatch(c -> c >= '1' && c <= '9');
        return nothing ? plain.replace("-", "") : plain.replace('-', '−');
    }

    /** A score, or a difference of scores, of 100. */
    public static String points(double value) {
        return fixed(value, 1);
    }

    /** A share in [0, 1] as whole percent. */
    public static String percent(double share) {
        return Math.round(100 * share) + " %";
    }

    /** So many of something. */
    public static String count(long n, String one, String many) {
        return n + " " + (n == 1 ? one : many);
    }

    /** An amount with as many decimals as a small one needs. */
    public static String money(double amount, String currency) {
        return fixed(amount, amount != 0 && Math.abs(amount) < 1 ? FINE : COARSE) + " " + currency;
    }

    /** Milliseconds in seconds, or minutes where it took some. */
    public static String duration(long ms) {
        if (ms < 10 * MS_A_SECOND) {
            return fixed(ms / MS_A_SECOND, 1) + " s";
        }
        return ms < 2 * MS_A_MINUTE
                ? Math.round(ms / MS_A_SECOND) + " s"
                : Math.round((double) ms / MS_A_MINUTE) + " min";
    }

    /** A moment on paper, where no reader's zone is known. */
    public static String moment(Instant at) {
        return MOMENT.format(at.atOffset(ZoneOffset.UTC));
    }
}
