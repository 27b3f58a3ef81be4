package org.mossbank.core.ruler;

import java.util.Collection;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.StudentMean;

/**
 * How much higher the same answers are scored than the last time, when other raters, or the same ones later, grade them again blind
 * among others.
 *
 * <p>\[ \hat s = \frac{1}{P} \sum_p \frac{1}{A_p} \sum_{a \in p} (y'_a - y_a) \] with \(y_a\) the mean score of an answer then and \(y'_a\)
 * now, each prompt weighing alike, and Student's interval over prompts. In points. Standings of then are put on today's ruler by adding
 * \(\hat s\); half widths add in squares, as the two are taken to be independent.
 *
 * @param prompts with an answer that was graded both times
 * @param answers of these
 * @param shift   by how much scores are higher now
 */
public record RulerShift(int prompts, int answers, StudentMean shift) {
    private static final double LEVEL = 0.95;

    /** An answer that was graded twice, with its mean score of then and of now. */
    public record Anchor(String prompt, double before, double now) {
        private double difference() {
            return now - before;
        }
    }

    /** What may be said of the ruler. */
    public enum Verdict {
        /** It moved by as much as matters, or may have. */
        MOVED,
        /** It moved, by less than matters. */
        MOVED_LITTLE,
        /** If it moved at all, then by less than matters. */
        HELD,
        /** It may have moved by as much as matters, or not at all. */
        UNCLEAR
    }

    public static RulerShift of(Collection<Anchor> anchors) {
        TreeMap<String, Double> byPrompt = anchors.stream()
                .collect(Collectors.groupingBy(
                        Anchor::prompt, TreeMap::new, Collectors.averagingDouble(Anchor::difference)));
        return new RulerShift(
                byPrompt.size(),
                anchors.size(),
                StudentMean.of(
                        byPrompt.values().stream()
                                .mapToDouble(Double::doubleValue)
                                .toArray(),
                        LEVEL));
    }

    /** @param margin points from which on a difference matters, at least 0 */
    public Verdict verdict(double margin) {
        Require.that(margin >= 0, "margin", "must be at least 0", margin);
        if (!(shift.interval() instanceof Interval.Bounds b)) {
            return Verdict.UNCLEAR;
        }
        boolean moved = b.low() > 0 || b.high() < 0;
        boolean little = b.low() > -margin && b.high() < margin;
        if (moved) {
            return little ? Verdict.MOVED_LITTLE : Verdict.MOVED;
        }
        return little ? Verdict.HELD : Verdict.UNCLEAR;
    }

    /** A standing of then with its interval, on today's ruler; limits are not cut. */
    public StudentMean onTodaysRuler(Estimate value, Interval interval) {
        if (!(shift.mean() instanceof Estimate.Defined s)) {
            return new StudentMean(shift.mean(), shift.interval());
        }
        Estimate moved = value.map(v -> v + s.number());
        if (moved instanceof Estimate.Defined m
                && interval instanceof Interval.Bounds own
                && shift.interval() instanceof Interval.Bounds b) {
            double low = Math.hypot(value.value().orElseThrow() - own.low(), s.number() - b.low());
            double high = Math.hypot(own.high() - value.value().orElseThrow(), b.high() - s.number());
            return new StudentMean(moved, new Interval.Bounds(m.number() - low, m.number() + high, LEVEL));
        }
        return new StudentMean(moved, interval instanceof Interval.Bounds ? shift.interval() : interval);
    }
}
