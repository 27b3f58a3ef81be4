package org.mossbank.core.reference;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeSet;
import java.util.function.ToDoubleFunction;
import org.apache.commons.csv.CSVRecord;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.CohenKappa;
import org.mossbank.core.agreement.Concordance;
import org.mossbank.core.agreement.FleissKappa;
import org.mossbank.core.agreement.GwetCoefficient;
import org.mossbank.core.agreement.IntraclassCorrelation;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.PercentAgreement;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.comparison.AdjustedMeans;
import org.mossbank.core.comparison.Holm;
import org.mossbank.core.comparison.SignFlip;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.core.generalizability.GeneralizabilityStudy;
import org.mossbank.core.ranking.Abilities;
import org.mossbank.core.ranking.Friedman;
import org.mossbank.core.ranking.PairedComparisons;
import org.mossbank.core.ranking.RankCorrelation;
import org.mossbank.core.tradeoff.ParetoFront;
import tools.jackson.databind.JsonNode;

/** What the core gives for the data of a reference case, by key. */
final class ReferenceFigures {
    private static final int RESAMPLES = 20_000;

    /** Which keys a statistic may have: their first word. */
    static final Map<String, String> STATISTICS = Map.ofEntries(
            Map.entry("percent_agreement", "percent"),
            Map.entry("cohen_kappa", "cohen"),
            Map.entry("fleiss_kappa", "fleiss"),
            Map.entry("krippendorff_alpha", "alpha"),
            Map.entry("gwet_ac", "ac1|ac2_linear|ac2_quadratic|ac2_ordinal"),
            Map.entry("icc", "icc"),
            Map.entry("kendall_w", "kendall_w"),
            Map.entry("alpha_bootstrap", "alpha_bootstrap"),
            Map.entry("gstudy", "gstudy"),
            Map.entry("adjusted_means", "adjusted"),
            Map.entry("friedman", "friedman"),
            Map.entry("sign_flip", "signflip"),
            Map.entry("holm", "holm"),
            Map.entry("bradley_terry", "bt"),
            Map.entry("davidson", "davidson"),
            Map.entry("rank_correlation", "spearman|kendall"),
            Map.entry("pareto", "pareto"));

    private final ReferenceCase reference;
    /** What was worked out already, by what it is. */
    private final Map<String, Object> done = new HashMap<>();

    ReferenceFigures(ReferenceCase reference) {
        this.reference = reference;
    }

    private <T> T once(String what, java.util.function.Supplier<T> work) {
        // What is worked out may itself ask for what comes before it.
        if (!done.containsKey(what)) {
            done.put(what, work.get());
        }
        @SuppressWarnings("unchecked")
        T known = (T) done.get(what);
        return known;
    }

    /**
     * An {@link Estimate}, or a set of names.
     *
     * @throws IllegalArgumentException if the key is not known
     */
    Object of(String key) {
        String[] parts = key.split("\\.");
        String rest = key.substring(parts[0].length() + 1);
        return switch (parts[0]) {
            case "percent" -> percent(rest);
            case "cohen" -> cohen(parts[1], parts[2]);
            case "fleiss" -> fleiss(rest);
            case "alpha" -> alpha().value(metric(rest));
            case "ac1", "ac2_linear", "ac2_quadratic", "ac2_ordinal" -> gwet(parts[0], rest);
            case "icc" -> icc(rest);
            case "kendall_w" -> concordance(rest);
            case "alpha_bootstrap" -> bootstrap(metric(parts[1]), parts[2], parts.length > 3 ? parts[3] : "");
            case "gstudy" -> gstudy(parts[1], rest.substring(parts[1].length() + 1));
            case "adjusted" -> adjusted(parts[1], rest);
            case "friedman" -> friedman(rest);
            case "signflip" -> signFlip(rest);
            case "holm" -> Require.known(once("holm", this::holm), rest);
            case "bt" -> abilities(once("bt", () -> Abilities.withoutTies(comparisons())), rest);
            case "davidson" -> abilities(once("davidson", () -> Abilities.withTies(comparisons())), rest);
            case "spearman" -> ranks(rest, "rho", RankCorrelation::rho);
            case "kendall" -> ranks(rest, "tau_b", RankCorrelation::tauB);
            case "pareto" -> pareto(rest);
            default -> throw unknown(key);
        };
    }

    private static IllegalArgumentException unknown(String key) {
        return new IllegalArgumentException("unknown key: " + key);
    }

    private static Estimate number(double x) {
        return Estimate.of(x);
    }

    private static Metric metric(String name) {
        return Metric.valueOf(name.toUpperCase(Locale.ROOT));
    }

    private RatingMatrix ratings() {
        return once("ratings", reference::ratings);
    }

    private KrippendorffAlpha alpha() {
        return once("alpha", () -> KrippendorffAlpha.of(ratings()));
    }

    private Estimate percent(String name) {
        PercentAgreement percent = PercentAgreement.of(ratings(), 0);
        return switch (name) {
            case "unit_mean" -> percent.unitMean();
            case "pooled" -> percent.pooled();
            case "rater_pair_mean" -> percent.raterPairMean();
            case "pairs" -> number(percent.pairs());
            case "units" -> number(percent.units());
            default -> throw unknown(name);
        };
    }

    private Estimate cohen(String scheme, String name) {
        int q = ratings().levels();
        AgreementWeights weights = switch (scheme) {
            case "unweighted" -> AgreementWeights.unweighted(q);
            case "linear" -> AgreementWeights.linear(q);
            case "quadratic" -> AgreementWeights.quadratic(q);
            case "custom" ->
                AgreementWeights.custom(table(reference.json().at("/parameters/custom_agreement_weights")));
            default -> throw unknown(scheme);
        };
        CohenKappa kappa = CohenKappa.of(ratings(), 0, 1, weights);
        return switch (name) {
            case "n" -> number(kappa.count());
            case "po" -> kappa.observed();
            case "pe" -> kappa.chance();
            case "kappa" -> kappa.kappa();
            case "se" -> kappa.standardError();
            case "se0" -> kappa.standardErrorIfChance();
            case "variance" -> kappa.standardError().map(x -> x * x);
            case "variance0" -> kappa.standardErrorIfChance().map(x -> x * x);
            default -> throw unknown(name);
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

    private Estimate fleiss(String name) {
        FleissKappa fleiss = FleissKappa.of(ratings());
        if (name.startsWith("category.") && name.endsWith(".kappa")) {
            String level = name.substring("category.".length(), name.length() - ".kappa".length());
            return fleiss.byLevel().get(reference.categories().indexOf(level));
        }
        if (name.startsWith("complete_units.")) {
            return fleiss(FleissKappa.ofCompleteUnits(ratings()), name.substring("complete_units.".length()));
        }
        return fleiss(fleiss, name);
    }

    private static Estimate fleiss(FleissKappa fleiss, String name) {
        return switch (name) {
            case "units" -> number(fleiss.units());
            case "p_bar" -> fleiss.observed();
            case "p_e" -> fleiss.chance();
            case "kappa" -> fleiss.kappa();
            case "se0" -> fleiss.standardErrorIfChance();
            case "category_se0" -> fleiss.levelStandardErrorIfChance();
            case "generalized.kappa" -> fleiss.generalized();
            default -> throw unknown(name);
        };
    }

    private Estimate gwet(String scheme, String name) {
        int q = ratings().levels();
        AgreementWeights weights = switch (scheme) {
            case "ac1" -> AgreementWeights.unweighted(q);
            case "ac2_linear" -> AgreementWeights.linear(q);
            case "ac2_quadratic" -> AgreementWeights.quadratic(q);
            default -> AgreementWeights.ordinal(q);
        };
        GwetCoefficient gwet = GwetCoefficient.of(ratings(), weights);
        double units = ratings().units().size();
        return switch (name) {
            case "pa" -> gwet.observed();
            case "pe" -> gwet.chance();
            case "coefficient" -> gwet.value();
            case "se" -> gwet.standardError();
            // The table formula for two raters divides by n² instead of n(n - 1).
            case "se_divisor_n" -> gwet.standardError().map(se -> se * Math.sqrt((units - 1) / units));
            case "ci_low" -> low(gwet.interval());
            case "ci_high" -> high(gwet.interval());
            default -> throw unknown(name);
        };
    }

    private static Estimate low(Interval interval) {
        return limit(interval, Interval.Bounds::low);
    }

    private static Estimate high(Interval interval) {
        return limit(interval, Interval.Bounds::high);
    }

    private static Estimate limit(Interval interval, ToDoubleFunction<Interval.Bounds> end) {
        return interval instanceof Interval.Bounds bounds
                ? Estimate.of(end.applyAsDouble(bounds))
                : Estimate.undefined(((Interval.Undefined) interval).reason());
    }

    private Estimate icc(String name) {
        IntraclassCorrelation icc = once("icc", () -> IntraclassCorrelation.of(reference.scores()));
        if (name.startsWith("icc")) {
            IntraclassCorrelation.Form form = switch (name.charAt(3)) {
                case '1' -> icc.oneWay();
                case '2' -> icc.agreement();
                case '3' -> icc.consistency();
                default -> throw unknown(name);
            };
            return switch (name.substring(4)) {
                case "1" -> form.single();
                case "1_low" -> low(form.singleInterval());
                case "1_high" -> high(form.singleInterval());
                case "k" -> form.mean();
                case "k_low" -> low(form.meanInterval());
                case "k_high" -> high(form.meanInterval());
                default -> throw unknown(name);
            };
        }
        return switch (name) {
            case "n" -> number(icc.units());
            case "k" -> number(icc.raters());
            case "bms" -> icc.betweenUnits();
            case "wms" -> icc.withinUnits();
            case "jms" -> icc.betweenRaters();
            case "ems" -> icc.residual();
            default -> throw unknown(name);
        };
    }

    private Estimate concordance(String name) {
        Concordance concordance = once("w", () -> Concordance.of(reference.scores()));
        return switch (name) {
            case "n" -> number(concordance.units());
            case "m" -> number(concordance.raters());
            case "w" -> concordance.w();
            case "chi2" -> concordance.chiSquared();
            case "df" ->
                concordance.freedom().isPresent()
                        ? number(concordance.freedom().getAsInt())
                        : Estimate.undefined(Reason.TOO_FEW_COMPLETE);
            case "p" -> concordance.p();
            default -> throw unknown(name);
        };
    }

    private Estimate bootstrap(Metric metric, String draws, String name) {
        if (draws.equals("point")) {
            return alpha().value(metric);
        }
        Resamples resamples = once(draws + metric, () -> switch (draws) {
            case "fixed" -> fixed(metric);
            case "random" -> alpha().bootstrap(metric, RESAMPLES, Resamples.generator(20_260_101));
            default -> throw unknown(draws);
        });
        Interval interval = resamples.percentileInterval(0.95);
        return switch (name) {
            case "low" -> low(interval);
            case "high" -> high(interval);
            case "undefined_resamples" -> number(resamples.undefined());
            default -> throw unknown(name);
        };
    }

    private Resamples fixed(Metric metric) {
        List<Double> values = new ArrayList<>();
        for (CSVRecord row : reference.rows("resamples")) {
            int[] drawn = row.stream()
                    .skip(1)
                    .mapToInt(unit -> ratings().units().indexOf(unit))
                    .toArray();
            values.add(alpha().valueOf(metric, drawn).value().orElse(Double.NaN));
        }
        return Resamples.of(values.stream().mapToDouble(Double::doubleValue).toArray());
    }

    private Estimate gstudy(String figure, String name) {
        GeneralizabilityStudy study = once("gstudy", () -> GeneralizabilityStudy.of(reference.cells()));
        if (figure.equals("g") || figure.equals("phi")) {
            String[] parts = name.split("[.x]");
            int prompts = Integer.parseInt(parts[1]);
            int raters = Integer.parseInt(parts[2]);
            GeneralizabilityStudy.Negative negative = switch (parts[0]) {
                case "zeroed" -> GeneralizabilityStudy.Negative.ZEROED;
                case "raw" -> GeneralizabilityStudy.Negative.KEPT;
                default -> throw unknown(name);
            };
            return figure.equals("g")
                    ? study.generalizability(prompts, raters, negative)
                    : study.dependability(prompts, raters, negative);
        }
        GeneralizabilityStudy.Source source = GeneralizabilityStudy.Source.valueOf(
                name.toUpperCase(Locale.ROOT).replace("MODEL", "CANDIDATE"));
        return switch (figure) {
            case "mean_square" -> Require.known(study.meanSquares(), source);
            case "df" -> number(Require.known(study.freedom(), source));
            case "variance" -> Require.known(study.components(), source);
            default -> throw unknown(figure);
        };
    }

    private Estimate adjusted(String figure, String name) {
        AdjustedMeans adjusted = once("adjusted", () -> AdjustedMeans.of(reference.cells()));
        return switch (figure) {
            case "df" -> number(adjusted.degreesOfFreedom());
            case "sigma2" -> adjusted.residualVariance();
            case "rank" -> number(adjusted.rank());
            case "parameters" -> number(adjusted.parameters());
            case "mean" -> Require.known(adjusted.means(), name.substring("mean.".length()));
            case "se" -> Require.known(adjusted.standardErrors(), name.substring("se.".length()));
            default -> throw unknown(name);
        };
    }

    private Estimate friedman(String name) {
        List<String> models = reference.rows("data").stream()
                .map(r -> r.get("model"))
                .distinct()
                .sorted()
                .toList();
        Friedman friedman = once(
                "friedman",
                () -> Friedman.of(reference.blocks().values().stream()
                        .map(b -> b.values().stream()
                                .mapToDouble(Double::parseDouble)
                                .toArray())
                        .toList()));
        if (name.startsWith("rank_sum.")) {
            return number(friedman.rankSums().get(models.indexOf(name.substring("rank_sum.".length()))));
        }
        return switch (name) {
            case "blocks" -> number(friedman.blocks());
            case "k" -> number(friedman.things());
            case "chi2" -> friedman.chiSquared();
            case "df" -> number(friedman.things() - 1.0);
            case "p" -> friedman.p();
            default -> throw unknown(name);
        };
    }

    private Estimate signFlip(String name) {
        String[] of = reference.json().at("/parameters/difference").asString().split(" - ");
        SignFlip test = once(
                "signflip",
                () -> SignFlip.of(reference.blocks().values().stream()
                        .map(b -> new BigDecimal(Require.known(b, of[0]))
                                .subtract(new BigDecimal(Require.known(b, of[1]))))
                        .toList()));
        return switch (name) {
            case "n" -> number(test.pairs());
            case "mean" -> test.mean();
            case "p_two" -> test.twoSided();
            case "p_greater" -> test.greater();
            case "p_less" -> test.less();
            default -> throw unknown(name);
        };
    }

    private Map<String, Estimate> holm() {
        Map<String, OptionalDouble> p = new LinkedHashMap<>();
        for (CSVRecord row : reference.rows("data")) {
            p.put(
                    row.get("test"),
                    row.get("p").isEmpty()
                            ? OptionalDouble.empty()
                            : OptionalDouble.of(Double.parseDouble(row.get("p"))));
        }
        return Holm.adjust(p);
    }

    private PairedComparisons comparisons() {
        return PairedComparisons.of(reference.rows("data").stream()
                .map(r -> new PairedComparisons.Row(
                        r.get("item_a"), r.get("item_b"), count(r, "wins_a"), count(r, "wins_b"), count(r, "ties")))
                .toList());
    }

    private static double count(CSVRecord row, String column) {
        return row.isMapped(column) && !row.get(column).isEmpty() ? Double.parseDouble(row.get(column)) : 0;
    }

    private Estimate abilities(Abilities abilities, String name) {
        String figure = name.split("\\.", 2)[0];
        String item = name.substring(Math.min(name.length(), figure.length() + 1));
        return switch (figure) {
            case "loglik" -> abilities.logLikelihood();
            case "nu" -> abilities.tieRate();
            case "log_ability" -> Require.known(abilities.logAbilities(), item);
            case "half_log_ability" ->
                Require.known(abilities.logAbilities(), item).map(x -> x / 2);
            case "strength" -> Require.known(abilities.strengths(), item);
            case "log_ability_relative" -> {
                String base = reference.json().at("/parameters/reference").asString();
                double from =
                        Require.known(abilities.logAbilities(), base).value().orElse(Double.NaN);
                yield Require.known(abilities.logAbilities(), item).map(x -> x - from);
            }
            default -> throw unknown(name);
        };
    }

    private Estimate ranks(
            String name, String expected, java.util.function.Function<RankCorrelation, Estimate> figure) {
        if (!name.equals(expected)) {
            throw unknown(name);
        }
        List<CSVRecord> rows = reference.rows("data").stream()
                .filter(r -> !r.get("x").isEmpty() && !r.get("y").isEmpty())
                .toList();
        return figure.apply(RankCorrelation.of(column(rows, "x"), column(rows, "y")));
    }

    private static double[] column(List<CSVRecord> rows, String name) {
        return rows.stream().mapToDouble(r -> Double.parseDouble(r.get(name))).toArray();
    }

    private Set<String> pareto(String name) {
        if (!name.equals("frontier")) {
            throw unknown(name);
        }
        return new TreeSet<>(ParetoFront.of(reference.rows("data").stream()
                .filter(r -> !r.get("quality").isEmpty() && !r.get("cost").isEmpty())
                .map(r -> new ParetoFront.Option(
                        r.get("model"), Double.parseDouble(r.get("quality")), Double.parseDouble(r.get("cost"))))
                .toList()));
    }
}
