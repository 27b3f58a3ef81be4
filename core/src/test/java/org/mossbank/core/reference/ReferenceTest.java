package org.mossbank.core.reference;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.ArrayList;
import java.util.Iterator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.function.ToDoubleFunction;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.CohenKappa;
import org.mossbank.core.agreement.GwetCoefficient;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.PercentAgreement;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.comparison.AdjustedMeans;
import org.mossbank.core.comparison.Holm;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Resamples;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;
import tools.jackson.databind.JsonNode;

/**
 * Published and cross-checked cases, each expected value with the tolerance that its file states. Another folder of such
 * cases: {@code -Dmossbank.reference=FOLDER}.
 */
public class ReferenceTest {
    private static final int RESAMPLES = 20_000;

    private static Iterator<Object[]> rows(String statistic) {
        return ReferenceCase.of(statistic).stream()
                .map(c -> new Object[] {c.id(), c})
                .iterator();
    }

    @DataProvider
    public static Iterator<Object[]> alphaCases() {
        return rows("krippendorff_alpha");
    }

    @Test(dataProvider = "alphaCases")
    public void krippendorffAlpha(String name, Object given) {
        ReferenceCase reference = (ReferenceCase) given;
        KrippendorffAlpha alpha = KrippendorffAlpha.of(reference.ratings());
        for (String key : reference.keys("alpha.")) {
            Metric metric = Metric.valueOf(key.substring("alpha.".length()).toUpperCase(Locale.ROOT));
            check(reference, key, alpha.value(metric));
        }
    }

    @DataProvider
    public static Iterator<Object[]> percentCases() {
        return rows("percent_agreement");
    }

    @Test(dataProvider = "percentCases")
    public void percentAgreement(String name, Object given) {
        ReferenceCase reference = (ReferenceCase) given;
        PercentAgreement percent = PercentAgreement.of(reference.ratings(), 0);
        check(reference, "percent.unit_mean", percent.unitMean());
        check(reference, "percent.pooled", percent.pooled());
        check(reference, "percent.rater_pair_mean", percent.raterPairMean());
        check(reference, "percent.pairs", Estimate.of(percent.pairs()));
        check(reference, "percent.units", Estimate.of(percent.units()));
    }

    @DataProvider
    public static Iterator<Object[]> kappaCases() {
        return rows("cohen_kappa");
    }

    @Test(dataProvider = "kappaCases")
    public void cohenKappa(String name, Object given) {
        ReferenceCase reference = (ReferenceCase) given;
        RatingMatrix matrix = reference.ratings();
        for (String key : reference.keys("cohen.")) {
            String[] parts = key.split("\\.");
            CohenKappa kappa = CohenKappa.of(matrix, 0, 1, weights(parts[1], matrix.levels(), reference));
            check(reference, key, figure(kappa, parts[2]));
        }
    }

    private static AgreementWeights weights(String scheme, int levels, ReferenceCase reference) {
        return switch (scheme) {
            case "unweighted" -> AgreementWeights.unweighted(levels);
            case "linear" -> AgreementWeights.linear(levels);
            case "quadratic" -> AgreementWeights.quadratic(levels);
            case "custom" ->
                AgreementWeights.custom(table(reference.json().at("/parameters/custom_agreement_weights")));
            default -> throw new IllegalStateException("unknown weights: " + scheme);
        };
    }

    private static double[][] table(JsonNode rows) {
        double[][] table = new double[rows.size()][rows.size()];
        for (int i = 0; i < table.length; i++) {
            for (int j = 0; j < table.length; j++) {
                table[i][j] = rows.get(i).get(j).asDouble();
            }
        }
        return table;
    }

    private static Estimate figure(CohenKappa kappa, String name) {
        return switch (name) {
            case "n" -> Estimate.of(kappa.count());
            case "po" -> kappa.observed();
            case "pe" -> kappa.chance();
            case "kappa" -> kappa.kappa();
            case "se" -> kappa.standardError();
            case "se0" -> kappa.standardErrorIfChance();
            case "variance" -> kappa.standardError().map(x -> x * x);
            case "variance0" -> kappa.standardErrorIfChance().map(x -> x * x);
            default -> throw new IllegalStateException("unknown figure: " + name);
        };
    }

    @DataProvider
    public static Iterator<Object[]> gwetCases() {
        return rows("gwet_ac");
    }

    @Test(dataProvider = "gwetCases")
    public void gwet(String name, Object given) {
        ReferenceCase reference = (ReferenceCase) given;
        RatingMatrix matrix = reference.ratings();
        for (String key : reference.keys("ac")) {
            String[] parts = key.split("\\.");
            AgreementWeights weights = switch (parts[0]) {
                case "ac1" -> AgreementWeights.unweighted(matrix.levels());
                case "ac2_linear" -> AgreementWeights.linear(matrix.levels());
                case "ac2_quadratic" -> AgreementWeights.quadratic(matrix.levels());
                case "ac2_ordinal" -> AgreementWeights.ordinal(matrix.levels());
                default -> throw new IllegalStateException("unknown weights: " + parts[0]);
            };
            check(
                    reference,
                    key,
                    figure(
                            GwetCoefficient.of(matrix, weights),
                            parts[1],
                            matrix.units().size()));
        }
    }

    private static Estimate figure(GwetCoefficient gwet, String name, int units) {
        return switch (name) {
            case "pa" -> gwet.observed();
            case "pe" -> gwet.chance();
            case "coefficient" -> gwet.value();
            case "se" -> gwet.standardError();
            // The table formula for two raters divides by n² instead of n(n - 1).
            case "se_divisor_n" -> gwet.standardError().map(se -> se * Math.sqrt((units - 1.0) / units));
            case "ci_low" -> limit(gwet.interval(), Interval.Bounds::low);
            case "ci_high" -> limit(gwet.interval(), Interval.Bounds::high);
            default -> throw new IllegalStateException("unknown figure: " + name);
        };
    }

    private static Estimate limit(Interval interval, ToDoubleFunction<Interval.Bounds> end) {
        return interval instanceof Interval.Bounds bounds
                ? Estimate.of(end.applyAsDouble(bounds))
                : Estimate.undefined(((Interval.Undefined) interval).reason());
    }

    @DataProvider
    public static Iterator<Object[]> bootstrapCases() {
        return rows("alpha_bootstrap");
    }

    @Test(dataProvider = "bootstrapCases")
    public void alphaBootstrap(String name, Object given) {
        ReferenceCase reference = (ReferenceCase) given;
        RatingMatrix matrix = reference.ratings();
        KrippendorffAlpha alpha = KrippendorffAlpha.of(matrix);
        for (Metric metric : Metric.values()) {
            String prefix = "alpha_bootstrap." + metric.name().toLowerCase(Locale.ROOT) + ".";
            check(reference, prefix + "point", alpha.value(metric));
            Resamples fixed = fixed(reference, matrix, alpha, metric);
            checkLimits(reference, prefix + "fixed.", fixed);
            check(reference, prefix + "fixed.undefined_resamples", Estimate.of(fixed.undefined()));
            Resamples random = alpha.bootstrap(metric, RESAMPLES, Resamples.generator(20_260_101));
            checkLimits(reference, prefix + "random.", random);
        }
    }

    private static Resamples fixed(
            ReferenceCase reference, RatingMatrix matrix, KrippendorffAlpha alpha, Metric metric) {
        List<Double> values = new ArrayList<>();
        for (CSVRecord row : reference.rows("resamples")) {
            int[] drawn = row.stream()
                    .skip(1)
                    .mapToInt(unit -> matrix.units().indexOf(unit))
                    .toArray();
            values.add(alpha.valueOf(metric, drawn).value().orElse(Double.NaN));
        }
        return Resamples.of(values.stream().mapToDouble(Double::doubleValue).toArray());
    }

    private static void checkLimits(ReferenceCase reference, String prefix, Resamples resamples) {
        if (resamples.percentileInterval(0.95) instanceof Interval.Bounds bounds) {
            check(reference, prefix + "low", Estimate.of(bounds.low()));
            check(reference, prefix + "high", Estimate.of(bounds.high()));
        } else {
            check(reference, prefix + "low", Estimate.undefined(Reason.UNDEFINED_IN_EVERY_RESAMPLE));
            check(reference, prefix + "high", Estimate.undefined(Reason.UNDEFINED_IN_EVERY_RESAMPLE));
        }
    }

    @DataProvider
    public static Iterator<Object[]> adjustedCases() {
        return rows("adjusted_means");
    }

    @Test(dataProvider = "adjustedCases")
    public void adjustedMeans(String name, Object given) {
        ReferenceCase reference = (ReferenceCase) given;
        AdjustedMeans adjusted = AdjustedMeans.of(reference.cells());
        check(reference, "adjusted.df", Estimate.of(adjusted.degreesOfFreedom()));
        check(reference, "adjusted.sigma2", adjusted.residualVariance());
        check(reference, "adjusted.rank", Estimate.of(adjusted.rank()));
        check(reference, "adjusted.parameters", Estimate.of(adjusted.parameters()));
        adjusted.means().forEach((model, mean) -> check(reference, "adjusted.mean." + model, mean));
        adjusted.standardErrors().forEach((model, error) -> check(reference, "adjusted.se." + model, error));
    }

    @DataProvider
    public static Iterator<Object[]> holmCases() {
        return rows("holm");
    }

    @Test(dataProvider = "holmCases")
    public void holm(String name, Object given) {
        ReferenceCase reference = (ReferenceCase) given;
        Map<String, Double> p = new LinkedHashMap<>();
        for (CSVRecord row : reference.rows("data")) {
            if (!row.get("p").isEmpty()) {
                p.put(row.get("test"), Double.parseDouble(row.get("p")));
            }
        }
        double[] adjusted =
                Holm.adjust(p.values().stream().mapToDouble(Double::doubleValue).toArray());
        int i = 0;
        for (String test : p.keySet()) {
            check(reference, "holm." + test, Estimate.of(adjusted[i++]));
        }
    }

    private static void check(ReferenceCase reference, String key, Estimate actual) {
        JsonNode expected = reference.expected(key);
        String where = reference.id() + " " + key;
        assertThat(expected.isMissingNode()).as(where + " is in the case").isFalse();
        if (expected.path("undefined").asBoolean(false)) {
            assertThat(actual).as(where).isInstanceOf(Estimate.Undefined.class);
            return;
        }
        double value = actual.value().orElseThrow(() -> new AssertionError(where + " is undefined: " + actual));
        if (expected.has("accept_from")) {
            assertThat(value)
                    .as(where)
                    .isBetween(
                            expected.path("accept_from").asDouble(),
                            expected.path("accept_to").asDouble());
        } else {
            double wanted = expected.path("value").asDouble();
            double tolerance = expected.path("tolerance").asDouble() * Math.max(1, Math.abs(wanted));
            assertThat(value).as(where).isCloseTo(wanted, within(tolerance));
        }
    }
}
