package org.mossbank.core.oversight;

import java.util.Arrays;
import java.util.List;
import java.util.OptionalLong;

/**
 * How long is left at the pace so far: \[ n \cdot \mathrm{median}_s (t_s / n_s) \] for n answers, in milliseconds. The pace is the median time an answer over the sheets that are done, as one long
 * interruption that was counted must not stretch the rest.
 */
public final class Pace {
    private Pace() {}

    /**
     * @param done        sheets that are sent in; those without a measured time say nothing
     * @param answersLeft on the sheets that are not
     * @return milliseconds; empty if no time was measured
     */
    public static OptionalLong left(List<GradedSheet> done, int answersLeft) {
        double[] anAnswer = done.stream()
                .filter(s -> s.activeMs().isPresent() && s.answers() > 0)
                .mapToDouble(s -> (double) s.activeMs().getAsLong() / s.answers())
                .sorted()
                .toArray();
        return anAnswer.length == 0
                ? OptionalLong.empty()
                : OptionalLong.of(Math.round(median(anAnswer) * answersLeft));
    }

    private static double median(double[] sorted) {
        int middle = sorted.length / 2;
        return sorted.length % 2 == 1
                ? sorted[middle]
                : Arrays.stream(sorted, middle - 1, middle + 1).average().orElseThrow();
    }
}
