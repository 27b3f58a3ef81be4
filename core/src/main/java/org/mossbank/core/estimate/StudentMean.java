package org.mossbank.core.estimate;

/**
 * A mean of independent values, with Student's interval.
 *
 * <p>\[ \bar x \pm t_{n - 1, (1 + \lambda) / 2} \, s / \sqrt n \] In the unit of the values. Undefined without one; without an
 * interval where there is but one, and none wide where all are the same. Sums of squares use two passes.
 *
 * <p>Source: Student (1908), The probable error of a mean, <i>Biometrika</i> 6(1), 1-25, doi:10.1093/biomet/6.1.1.
 */
public record StudentMean(Estimate mean, Interval interval) {
    /** None, and why. */
    public static StudentMean undefined(Reason why) {
        return new StudentMean(Estimate.undefined(why), Interval.undefined(why));
    }

    /** @param level confidence level, in [0, 1] */
    public static StudentMean of(double[] values, double level) {
        Require.proportion("level", level);
        int n = values.length;
        if (n == 0) {
            return undefined(Reason.NO_DATA);
        }
        double sum = 0;
        for (double value : values) {
            sum += value;
        }
        double mean = sum / n;
        if (n == 1) {
            return new StudentMean(Estimate.of(mean), Interval.undefined(Reason.NO_FREEDOM_LEFT));
        }
        double squares = 0;
        for (double value : values) {
            squares += (value - mean) * (value - mean);
        }
        double wide = Student.of(n - 1.0).quantile((1 + level) / 2) * Math.sqrt(squares / (n - 1) / n);
        return new StudentMean(Estimate.of(mean), new Interval.Bounds(mean - wide, mean + wide, level));
    }
}
