package org.mossbank.core.generalizability;

import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Stream;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;

/**
 * Variance components of a complete candidate × prompt × rater design, one score a cell, all three random; and how
 * dependable candidates' means are over other numbers of prompts and raters.
 *
 * <p>Expected mean squares give, with \(m, p, r\) levels: \[ \hat\sigma^2_{mpr} = MS_{mpr}, \quad
 * \hat\sigma^2_{mp} = (MS_{mp} - MS_{mpr}) / r, \quad \hat\sigma^2_m = (MS_m - MS_{mp} - MS_{mr} + MS_{mpr}) / (p r) \] and
 * likewise for the others. Negative estimates are kept here. For means over \(P\) prompts and \(R\) raters \[ G =
 * \frac{\sigma^2_m}{\sigma^2_m + \sigma^2_{mp} / P + \sigma^2_{mr} / R + \sigma^2_{mpr} / (P R)} \] and \(\Phi\) the same with
 * \( \sigma^2_p / P + \sigma^2_r / R + \sigma^2_{pr} / (P R) \) below as well.
 *
 * <p>Components in squared points; coefficients dimensionless, in [0, 1] where no component is negative. Undefined where a cell
 * is missing or a factor has one level; coefficients also where no variance is left. Sums of squares in two passes.
 *
 * <p>Sources: L. Cronbach, G. Gleser, H. Nanda and N. Rajaratnam (1972), <i>The Dependability of Behavioral Measurements</i>; R.
 * Brennan (2001), <i>Generalizability Theory</i>, ch. 3-5, doi:10.1007/978-1-4757-3456-0.
 *
 * @param meanSquares by source
 * @param freedom     degrees of freedom by source; empty where they are undefined
 * @param components  by source, negative ones kept
 */
public record GeneralizabilityStudy(
        Map<Source, Estimate> meanSquares, Map<Source, Integer> freedom, Map<Source, Estimate> components) {

    /** What scores may vary by; a source of several factors is what remains when they are taken together. */
    public enum Source {
        CANDIDATE(1, 0, 0),
        PROMPT(0, 1, 0),
        RATER(0, 0, 1),
        CANDIDATE_PROMPT(1, 1, 0),
        CANDIDATE_RATER(1, 0, 1),
        PROMPT_RATER(0, 1, 1),
        RESIDUAL(1, 1, 1);

        private final int[] factors;

        Source(int... factors) {
            this.factors = factors;
        }

        private int mask() {
            return factors[0] + 2 * factors[1] + 4 * factors[2];
        }

        private boolean holds(Source other) {
            return (mask() & other.mask()) == other.mask();
        }
    }

    /** What becomes of negative components. */
    public enum Negative {
        ZEROED,
        KEPT
    }

    private static final double ROUNDING = 1e-26;

    /** Cost linear in the cells. */
    public static GeneralizabilityStudy of(List<ScoredCell> cells) {
        Map<String, Integer> m = index(cells.stream().map(ScoredCell::candidate));
        Map<String, Integer> p = index(cells.stream().map(ScoredCell::prompt));
        Map<String, Integer> r = index(cells.stream().map(ScoredCell::rater));
        int[] sizes = {m.size(), p.size(), r.size()};
        if (sizes[0] < 2 || sizes[1] < 2 || sizes[2] < 2) {
            return undefined(Reason.TOO_FEW_LEVELS);
        }
        if (cells.size() != sizes[0] * sizes[1] * sizes[2]) {
            return undefined(Reason.NOT_COMPLETE);
        }
        double[][][] y = new double[sizes[0]][sizes[1]][sizes[2]];
        for (ScoredCell cell : cells) {
            y[Require.known(m, cell.candidate())][Require.known(p, cell.prompt())][Require.known(r, cell.rater())] =
                    cell.score();
        }
        return balanced(y, sizes);
    }

    private static Map<String, Integer> index(Stream<String> names) {
        Map<String, Integer> index = new TreeMap<>();
        names.sorted().forEach(name -> index.putIfAbsent(name, index.size()));
        return index;
    }

    private static GeneralizabilityStudy undefined(Reason reason) {
        Map<Source, Estimate> none = new EnumMap<>(Source.class);
        for (Source source : Source.values()) {
            none.put(source, Estimate.undefined(reason));
        }
        return new GeneralizabilityStudy(none, Map.of(), none);
    }

    /** The means over each set of factors, by the place of the levels that are kept. */
    private static Map<Integer, double[]> means(double[][][] y, int[] sizes) {
        Map<Integer, double[]> means = new HashMap<>();
        for (int mask = 0; mask < 8; mask++) {
            double[] sums = new double[sizes[0] * sizes[1] * sizes[2]];
            int kept = 1;
            for (int f = 0; f < 3; f++) {
                kept *= (mask >> f & 1) == 1 ? sizes[f] : 1;
            }
            double each = (double) sums.length / kept;
            for (int i = 0; i < sizes[0]; i++) {
                for (int j = 0; j < sizes[1]; j++) {
                    for (int k = 0; k < sizes[2]; k++) {
                        sums[place(mask, sizes, i, j, k)] += y[i][j][k] / each;
                    }
                }
            }
            means.put(mask, sums);
        }
        return means;
    }

    private static int place(int mask, int[] sizes, int i, int j, int k) {
        return ((mask & 1) == 1 ? i : 0)
                + sizes[0] * (((mask & 2) == 2 ? j : 0) + sizes[1] * ((mask & 4) == 4 ? k : 0));
    }

    private static GeneralizabilityStudy balanced(double[][][] y, int[] sizes) {
        Map<Integer, double[]> means = means(y, sizes);
        Map<Source, Double> squares = new EnumMap<>(Source.class);
        double all = 0;
        for (int i = 0; i < sizes[0]; i++) {
            for (int j = 0; j < sizes[1]; j++) {
                for (int k = 0; k < sizes[2]; k++) {
                    all += y[i][j][k] * y[i][j][k];
                    for (Source source : Source.values()) {
                        double effect = 0;
                        // The mean over what the source holds, less those over each part of it (inclusion, exclusion).
                        for (int part = 0; part < 8; part++) {
                            if ((part & source.mask()) == part) {
                                int sign = Integer.bitCount(source.mask() ^ part) % 2 == 0 ? 1 : -1;
                                effect += sign * Require.known(means, part)[place(part, sizes, i, j, k)];
                            }
                        }
                        squares.merge(source, effect * effect, Double::sum);
                    }
                }
            }
        }
        Map<Source, Integer> freedom = new EnumMap<>(Source.class);
        Map<Source, Double> ms = new EnumMap<>(Source.class);
        for (Source source : Source.values()) {
            int df = 1;
            for (int f = 0; f < 3; f++) {
                df *= source.factors[f] == 1 ? sizes[f] - 1 : 1;
            }
            freedom.put(source, df);
            double sum = Require.known(squares, source);
            ms.put(source, sum <= ROUNDING * all ? 0 : sum / df);
        }
        Map<Source, Estimate> meanSquares = new EnumMap<>(Source.class);
        Map<Source, Estimate> components = new EnumMap<>(Source.class);
        for (Source source : Source.values()) {
            meanSquares.put(source, Estimate.of(Require.known(ms, source)));
            components.put(source, Estimate.of(component(source, ms, sizes)));
        }
        return new GeneralizabilityStudy(meanSquares, freedom, components);
    }

    /** From expected mean squares: those of all sources that hold this one, with alternating signs. */
    private static double component(Source source, Map<Source, Double> ms, int[] sizes) {
        double sum = 0;
        for (Source other : Source.values()) {
            if (other.holds(source)) {
                int sign = Integer.bitCount(other.mask() ^ source.mask()) % 2 == 0 ? 1 : -1;
                sum += sign * Require.known(ms, other);
            }
        }
        double each = 1;
        for (int f = 0; f < 3; f++) {
            each *= source.factors[f] == 1 ? 1 : sizes[f];
        }
        return sum / each;
    }

    /** G: how much of the differences between candidates' means would come again. */
    public Estimate generalizability(int prompts, int raters, Negative negative) {
        return coefficient(prompts, raters, negative, Source.CANDIDATE_PROMPT, Source.CANDIDATE_RATER, Source.RESIDUAL);
    }

    /** Φ: the same for the means themselves, which also hang on how easy prompts and how kind raters are. */
    public Estimate dependability(int prompts, int raters, Negative negative) {
        return coefficient(
                prompts,
                raters,
                negative,
                Source.CANDIDATE_PROMPT,
                Source.CANDIDATE_RATER,
                Source.RESIDUAL,
                Source.PROMPT,
                Source.RATER,
                Source.PROMPT_RATER);
    }

    private Estimate coefficient(int prompts, int raters, Negative negative, Source... errors) {
        Require.atLeast("prompts", 1, prompts);
        Require.atLeast("raters", 1, raters);
        if (Require.known(components, Source.CANDIDATE) instanceof Estimate.Undefined none) {
            return none;
        }
        double signal = value(Source.CANDIDATE, negative);
        double error = 0;
        for (Source source : errors) {
            double over = (source.factors[1] == 1 ? prompts : 1.0) * (source.factors[2] == 1 ? raters : 1.0);
            error += value(source, negative) / over;
        }
        return signal + error == 0 ? Estimate.undefined(Reason.NO_VARIANCE) : Estimate.of(signal / (signal + error));
    }

    private double value(Source source, Negative negative) {
        double component = Require.known(components, source).value().orElseThrow();
        return negative == Negative.ZEROED ? Math.max(0, component) : component;
    }
}
