package org.mossbank.core.decision;

import java.util.ArrayList;
import java.util.List;
import org.hipparchus.special.Erf;
import org.mossbank.core.estimate.Normal;
import org.mossbank.core.estimate.Require;

/**
 * What each of several looks at a study may spend of the allowance of error, so that all of them together stay within it.
 *
 * <p>\[ \alpha^*(t) = 4 - 4 \, \Phi(z_{1 - \alpha / 4} / \sqrt t) \] is spent once a share \(t\) of the information is there
 * (after O'Brien and Fleming, half of it to each side: hardly anything early). The level of a look is that of the two-sided test which, of the studies that
 * crossed no earlier bound, lets just the increment cross: \[ P(|W_{t_j}| \ge b_j, \; |W_{t_i}| < b_i \; \forall i < j) =
 * \alpha^*(t_j) - \alpha^*(t_{j-1}), \quad \text{level}_j = 2 - 2 \, \Phi(b_j / \sqrt{t_j}) \] with \(W\) a Brownian motion,
 * by integration over fixed points. Probabilities. Information is prompts counted over prompts planned; the last look, whatever
 * came, spends all that is left only at 1.
 *
 * <p>Sources: K. Lan and D. DeMets (1983), Discrete sequential boundaries for clinical trials, <i>Biometrika</i> 70(3), 659-663,
 * doi:10.1093/biomet/70.3.659; P. Armitage, C. McPherson and B. Rowe (1969), Repeated significance tests on accumulating data,
 * <i>JRSS A</i> 132(2), 235-244, doi:10.2307/2343787.
 */
public final class Looks {
    private static final int POINTS = 401;
    /** Beyond so many standard deviations nothing is left. */
    private static final double REACH = 8;

    private static final int HALVINGS = 80;

    private Looks() {}

    /**
     * @param alpha       two-sided, in (0, 0.5)
     * @param information at each look, ascending, in (0, 1]; at least one
     * @return the level of each look, in the same order
     * @throws IllegalArgumentException if a share is out of its range or not above the one before
     */
    public static List<Double> levels(double alpha, List<Double> information) {
        Require.that(alpha > 0 && alpha < 0.5, "alpha", "must lie in (0, 0.5)", alpha);
        Require.that(!information.isEmpty(), "information", "must not be empty", information);
        List<Double> levels = new ArrayList<>();
        Passing passing = Passing.START;
        double spent = 0;
        double before = 0;
        for (double t : information) {
            Require.that(t > before && t <= 1, "information", "must ascend within (0, 1]", t);
            double now = spent(alpha, t);
            double bound = passing.boundAt(t, now - spent);
            levels.add(2 * Normal.upper(bound / Math.sqrt(t)));
            passing = passing.past(t, bound);
            spent = now;
            before = t;
        }
        return List.copyOf(levels);
    }

    /** What may be spent in all once a share of the information is there. */
    static double spent(double alpha, double t) {
        return 4 * Normal.upper(normalQuantile(alpha / 4) / Math.sqrt(t));
    }

    /** The value that is exceeded with this probability. */
    private static double normalQuantile(double upper) {
        return Math.sqrt(2) * Erf.erfcInv(2 * upper);
    }

    /** Where studies are that crossed no bound yet: at points of equal distance, with what each weighs. */
    private record Passing(double time, double[] at, double[] weight) {
        static final Passing START = new Passing(0, new double[] {0}, new double[] {1});

        /** The bound that just this share crosses. */
        double boundAt(double t, double share) {
            double sd = Math.sqrt(t - time);
            double low = 0;
            double high = REACH * Math.sqrt(t);
            for (int i = 0; i < HALVINGS; i++) {
                double middle = (low + high) / 2;
                if (crossing(middle, sd) > share) {
                    low = middle;
                } else {
                    high = middle;
                }
            }
            return (low + high) / 2;
        }

        private double crossing(double bound, double sd) {
            double sum = 0;
            for (int i = 0; i < at.length; i++) {
                sum += weight[i] * (Normal.upper((bound - at[i]) / sd) + Normal.upper((bound + at[i]) / sd));
            }
            return sum;
        }

        /** Those that stay below the bound, by Simpson's rule. */
        Passing past(double t, double bound) {
            double sd = Math.sqrt(t - time);
            double step = 2 * bound / (POINTS - 1);
            double[] next = new double[POINTS];
            double[] weights = new double[POINTS];
            for (int j = 0; j < POINTS; j++) {
                next[j] = -bound + j * step;
                double density = 0;
                for (int i = 0; i < at.length; i++) {
                    double z = (next[j] - at[i]) / sd;
                    density += weight[i] * Math.exp(-z * z / 2) / (sd * Math.sqrt(2 * Math.PI));
                }
                double simpson = j == 0 || j == POINTS - 1 ? 1 : j % 2 == 1 ? 4 : 2;
                weights[j] = simpson * step / 3 * density;
            }
            return new Passing(t, next, weights);
        }
    }
}
