package org.mossbank.core.table;

import java.nio.IntBuffer;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeSet;
import java.util.stream.IntStream;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.CohenKappa;
import org.mossbank.core.agreement.Concordance;
import org.mossbank.core.agreement.FleissKappa;
import org.mossbank.core.agreement.GwetCoefficient;
import org.mossbank.core.agreement.IntraclassCorrelation;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.PercentAgreement;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.agreement.ScoreTable;
import org.mossbank.core.agreement.Split;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.severity.GradedUnit;
import org.mossbank.core.severity.RaterSeverity;
import org.mossbank.core.severity.Severity;

/**
 * Every coefficient of agreement that a table defines, with intervals where there are any.
 *
 * @param units        with a value
 * @param raters       in alphabetical order
 * @param values       given
 * @param levels       the different values, ascending; as numbers where they are numbers
 * @param coefficients over all raters
 * @param pairs        of each two raters
 * @param severities   in levels; empty for names
 * @param splits       units whose values lie two levels or more apart, widest first, at most {@link #SHOWN_SPLITS}; none for names
 * @param splitCount   how many there are
 */
public record TableAgreement(
        int units,
        List<String> raters,
        int values,
        List<String> levels,
        List<Named> coefficients,
        List<Pair> pairs,
        List<RaterSeverity> severities,
        List<Split> splits,
        int splitCount) {
    /** More than anybody talks through. */
    public static final int SHOWN_SPLITS = 100;
    /** As many as the matrix of ratings can tell apart. */
    public static final int MOST_LEVELS = 127;

    private static final double LEVEL = 0.95;
    private static final int MOST_RESAMPLES = 2000;
    private static final int FEWEST_RESAMPLES = 200;
    /** Units times resamples, so that the largest table takes seconds. */
    private static final double MOST_DRAWN = 2e7;
    /** Numbers that are held of all different units at once, so that no table takes all memory. */
    private static final long MOST_HELD = 10_000_000;
    /** Nothing that a reader compares may hang on chance; the same table gives the same limits. */
    private static final long SEED = 1;

    public TableAgreement {
        raters = List.copyOf(raters);
        levels = List.copyOf(levels);
        coefficients = List.copyOf(coefficients);
        pairs = List.copyOf(pairs);
        severities = List.copyOf(severities);
        splits = List.copyOf(splits);
    }

    /** Which coefficient; their papers stand with the classes that compute them. */
    public enum Name {
        ALPHA_NOMINAL,
        ALPHA_ORDINAL,
        ALPHA_INTERVAL,
        AC1,
        AC2_ORDINAL,
        FLEISS_KAPPA,
        EXACT,
        WITHIN_ONE,
        ICC_SINGLE_AGREEMENT,
        ICC_MEAN_AGREEMENT,
        ICC_SINGLE_CONSISTENCY,
        KENDALL_W
    }

    /** A coefficient, with its 95 % interval where there is one. */
    public record Named(Name name, Estimate value, Interval interval) {}

    /**
     * Cohen's kappa of two raters, over the units that both have.
     *
     * @param linear    weighted by the distance; undefined for names
     * @param quadratic by its square; undefined for names
     */
    public record Pair(String first, String second, int units, Estimate kappa, Estimate linear, Estimate quadratic) {}

    /** Signals values that are not of the scale. */
    public static final class NotOfScale extends Exception {
        private static final long serialVersionUID = 1L;

        NotOfScale(String message) {
            super(message);
        }
    }

    /**
     * @param table without faults
     * @throws NotOfScale if a value is no number where numbers are asked for, or there are more than {@link #MOST_LEVELS}
     */
    public static TableAgreement of(ValueTable table, TableScale scale) throws NotOfScale {
        Require.that(table.faults().isEmpty(), "table", "must have no faults", table.faults());
        return new Working(table.values(), scale).agreement();
    }

    /**
     * Every coefficient over all raters, each with its interval where it has one of its own; units are taken as independent.
     *
     * @param ratings what the matrix was made of
     * @param numbers what each level is worth, ascending
     */
    public static List<Named> coefficientsOf(
            List<Rating> ratings, RatingMatrix matrix, double[] numbers, TableScale scale) {
        List<Named> all = new ArrayList<>();
        KrippendorffAlpha alpha = KrippendorffAlpha.of(matrix);
        for (Metric metric : Metric.values()) {
            if (metric == Metric.NOMINAL || scale != TableScale.NOMINAL) {
                all.add(new Named(
                        Name.valueOf("ALPHA_" + metric.name()), alpha.value(metric), alpha.interval(metric, LEVEL)));
            }
        }
        GwetCoefficient ac1 = GwetCoefficient.of(matrix, AgreementWeights.unweighted(matrix.levels()));
        all.add(new Named(Name.AC1, ac1.value(), upToOne(ac1.interval())));
        if (scale != TableScale.NOMINAL && matrix.levels() > 1) {
            GwetCoefficient ac2 = GwetCoefficient.of(matrix, AgreementWeights.ordinal(matrix.levels()));
            all.add(new Named(Name.AC2_ORDINAL, ac2.value(), upToOne(ac2.interval())));
        }
        all.add(without(Name.FLEISS_KAPPA, FleissKappa.of(matrix).kappa()));
        all.add(without(Name.EXACT, PercentAgreement.of(matrix, 0).pooled()));
        if (scale != TableScale.NOMINAL) {
            all.add(without(Name.WITHIN_ONE, PercentAgreement.of(matrix, 1).pooled()));
            ofNumbers(all, ratings, numbers, scale);
        }
        return all;
    }

    /** No coefficient of agreement is above 1; the interval by its variance may be. */
    private static Interval upToOne(Interval interval) {
        return interval instanceof Interval.Bounds b
                ? new Interval.Bounds(b.low(), Math.min(1, b.high()), b.level())
                : interval;
    }

    private static void ofNumbers(List<Named> all, List<Rating> ratings, double[] numbers, TableScale scale) {
        ScoreTable scores = ScoreTable.of(ratings.stream()
                .map(r -> new ScoreTable.Score(r.unit(), r.rater(), numbers[r.category()]))
                .toList());
        if (scale == TableScale.INTERVAL) {
            IntraclassCorrelation icc = IntraclassCorrelation.of(scores);
            all.add(new Named(
                    Name.ICC_SINGLE_AGREEMENT,
                    icc.agreement().single(),
                    icc.agreement().singleInterval()));
            all.add(new Named(
                    Name.ICC_MEAN_AGREEMENT,
                    icc.agreement().mean(),
                    icc.agreement().meanInterval()));
            all.add(new Named(
                    Name.ICC_SINGLE_CONSISTENCY,
                    icc.consistency().single(),
                    icc.consistency().singleInterval()));
        }
        all.add(without(Name.KENDALL_W, Concordance.of(scores).w()));
    }

    private static Named without(Name name, Estimate value) {
        return new Named(name, value, Interval.undefined(Reason.NOT_ASKED));
    }

    private static final class Working {
        private final TableScale scale;
        private final List<String> levels;
        private final double[] numbers;
        private final List<Rating> ratings = new ArrayList<>();
        private final RatingMatrix matrix;

        Working(List<ValueTable.Value> values, TableScale scale) throws NotOfScale {
            this.scale = scale;
            boolean named = scale == TableScale.NOMINAL;
            TreeSet<String> names = new TreeSet<>();
            TreeSet<Double> ascending = new TreeSet<>();
            for (ValueTable.Value value : values) {
                if (named) {
                    names.add(value.value());
                } else {
                    ascending.add(number(value));
                }
            }
            levels = named
                    ? List.copyOf(names)
                    : ascending.stream().map(Working::written).toList();
            if (levels.size() > MOST_LEVELS) {
                throw new NotOfScale("there are %d different values; at most %d can be told apart"
                        .formatted(levels.size(), MOST_LEVELS));
            }
            numbers = named
                    ? IntStream.range(0, levels.size()).asDoubleStream().toArray()
                    : ascending.stream().mapToDouble(Double::doubleValue).toArray();
            Map<String, Integer> places = new HashMap<>();
            levels.forEach(l -> places.put(l, places.size()));
            for (ValueTable.Value value : values) {
                String level = named ? value.value() : written(number(value));
                ratings.add(new Rating(value.unit(), value.rater(), Require.known(places, level)));
            }
            matrix = RatingMatrix.of(ratings, numbers);
            refuseIfTooMuch();
        }

        /** What the coefficients hold grows with units times levels, and with different units times levels squared. */
        private void refuseIfTooMuch() throws NotOfScale {
            Map<String, int[]> byUnit = new HashMap<>();
            ratings.forEach(r -> byUnit.computeIfAbsent(r.unit(), u -> new int[levels.size()])[r.category()]++);
            long different =
                    byUnit.values().stream().map(IntBuffer::wrap).distinct().count();
            long held = Math.max(
                    (long) byUnit.size() * levels.size(), different * levels.size() * (levels.size() + 1L) / 2);
            if (held > MOST_HELD) {
                throw new NotOfScale(
                        "%,d units at %d different values are more than can be worked out at once; group values that lie near each other"
                                .formatted(byUnit.size(), levels.size()));
            }
        }

        private static double number(ValueTable.Value value) throws NotOfScale {
            try {
                double number = Double.parseDouble(value.value());
                if (Double.isFinite(number)) {
                    return number == 0 ? 0 : number;
                }
            } catch (NumberFormatException e) {
                // Told below, with what stands there.
            }
            throw new NotOfScale("“%s” of %s on %s is no number".formatted(value.value(), value.rater(), value.unit()));
        }

        private static String written(double number) {
            return number == Math.rint(number) && Math.abs(number) < 1e15
                    ? String.valueOf((long) number)
                    : String.valueOf(number);
        }

        TableAgreement agreement() {
            List<Split> all = scale == TableScale.NOMINAL ? List.of() : Split.of(matrix);
            return new TableAgreement(
                    matrix.units().size(),
                    matrix.raters(),
                    ratings.size(),
                    levels,
                    coefficientsOf(ratings, matrix, numbers, scale),
                    pairs(),
                    severities(),
                    all.stream()
                            .sorted((a, b) -> Integer.compare(b.distance(), a.distance()))
                            .limit(SHOWN_SPLITS)
                            .toList(),
                    all.size());
        }

        private List<Pair> pairs() {
            List<Pair> all = new ArrayList<>();
            int n = matrix.raters().size();
            for (int i = 0; i < n; i++) {
                for (int j = i + 1; j < n; j++) {
                    all.add(pair(i, j));
                }
            }
            return all;
        }

        private Pair pair(int i, int j) {
            CohenKappa plain = CohenKappa.of(matrix, i, j, AgreementWeights.unweighted(matrix.levels()));
            Estimate none = Estimate.undefined(Reason.NOT_ASKED);
            boolean ordered = scale != TableScale.NOMINAL && matrix.levels() > 1;
            return new Pair(
                    matrix.raters().get(i),
                    matrix.raters().get(j),
                    plain.count(),
                    plain.kappa(),
                    ordered
                            ? CohenKappa.of(matrix, i, j, AgreementWeights.linear(matrix.levels()))
                                    .kappa()
                            : none,
                    ordered
                            ? CohenKappa.of(matrix, i, j, AgreementWeights.quadratic(matrix.levels()))
                                    .kappa()
                            : none);
        }

        private List<RaterSeverity> severities() {
            if (scale == TableScale.NOMINAL) {
                return List.of();
            }
            int highest = levels.size() - 1;
            return Severity.of(
                    ratings.stream()
                            .map(r -> new GradedUnit(cluster(r.unit()), r.unit(), r.rater(), r.category(), highest))
                            .toList(),
                    (int) Math.max(
                            FEWEST_RESAMPLES,
                            Math.min(
                                    MOST_RESAMPLES,
                                    MOST_DRAWN
                                            / Math.min(
                                                    clusters(), matrix.units().size()))),
                    LEVEL,
                    Resamples.generator(SEED));
        }

        /** As many as the normal equations of each may be held of; units beyond are resampled in groups. */
        private long clusters() {
            long equations = (long) matrix.raters().size() * (matrix.raters().size() + 1);
            return Math.max(1, MOST_HELD / equations);
        }

        private String cluster(String unit) {
            return matrix.units().size() <= clusters()
                    ? unit
                    : String.valueOf(Math.floorMod(unit.hashCode(), clusters()));
        }
    }
}
