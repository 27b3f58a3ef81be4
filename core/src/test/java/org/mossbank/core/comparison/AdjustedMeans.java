package org.mossbank.core.comparison;

import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.IntStream;
import org.hipparchus.linear.EigenDecompositionSymmetric;
import org.hipparchus.linear.LUDecomposition;
import org.hipparchus.linear.MatrixUtils;
import org.hipparchus.linear.RealMatrix;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;

/**
 * Means of candidates, adjusted so that none is favoured by kind raters or easy prompts.
 *
 * <p>\[ y_{cpr} = \mu + \alpha_c + \beta_p + \gamma_r + \epsilon_{cpr}, \quad \sum_c \alpha_c = \sum_p \beta_p = \sum_r \gamma_r = 0 \]
 * by least squares over the cells there are; a candidate's mean is \( \mu + \alpha_c \), in points of the score. Standard errors are those of the
 * fixed-effects model (they take prompts and raters as given; {@link Standings} does not).
 *
 * <p>Source: S. Searle (1971), <i>Linear Models</i>, ch. 8; S. Searle, F. Speed and G. Milliken (1980), Population
 * marginal means in the linear model, <i>The American Statistician</i> 34(4), 216-221,
 * doi:10.1080/00031305.1980.10483031.
 *
 * @param means            by candidate, in alphabetical order; undefined if the design is not connected
 * @param standardErrors   by candidate, in units of the score
 * @param residualVariance undefined without degrees of freedom
 * @param degreesOfFreedom cells less rank
 * @param rank             rank of the design matrix
 * @param parameters       its number of columns
 */
public record AdjustedMeans(
        Map<String, Estimate> means,
        Map<String, Estimate> standardErrors,
        Estimate residualVariance,
        int degreesOfFreedom,
        int rank,
        int parameters) {
    private static final double RANK_TOLERANCE = 1e-10;

    /** Cost O(parameters³ + cells). */
    public static AdjustedMeans of(List<ScoredCell> cells) {
        if (cells.isEmpty()) {
            Estimate none = Estimate.undefined(Reason.NO_DATA);
            return new AdjustedMeans(Map.of(), Map.of(), none, 0, 0, 0);
        }
        Design design = new Design(cells);
        double[][] cross = design.crossProducts(
                Design.ones(design.prompts().size()),
                Design.ones(design.raters().size()));
        int rank = rank(MatrixUtils.createRealMatrix(cross));
        int freedom = cells.size() - rank;
        if (rank < design.parameters()) {
            return unconnected(design, cells, rank, freedom);
        }
        double[] solution = design.solve().orElseThrow();
        Estimate variance = freedom == 0
                ? Estimate.undefined(Reason.NO_FREEDOM_LEFT)
                : Estimate.of(residualSquares(design, solution) / freedom);
        RealMatrix inverse = new LUDecomposition(MatrixUtils.createRealMatrix(cross))
                .getSolver()
                .getInverse();
        Map<String, Estimate> means = new LinkedHashMap<>();
        Map<String, Estimate> errors = new LinkedHashMap<>();
        for (int c = 0; c < design.candidates().size(); c++) {
            double[] contrast = design.contrast(c);
            double[] spread = inverse.operate(contrast);
            double leverage = dot(contrast, spread);
            means.put(design.candidates().get(c), Estimate.of(dot(contrast, solution)));
            errors.put(design.candidates().get(c), variance.map(v -> Math.sqrt(v * leverage)));
        }
        return new AdjustedMeans(means, errors, variance, freedom, rank, design.parameters());
    }

    private static AdjustedMeans unconnected(Design design, List<ScoredCell> cells, int rank, int freedom) {
        Map<String, Estimate> none = new LinkedHashMap<>();
        design.candidates().forEach(c -> none.put(c, Estimate.undefined(Reason.NOT_CONNECTED)));
        Estimate variance = freedom == 0
                ? Estimate.undefined(Reason.NO_FREEDOM_LEFT)
                : Estimate.of(minimumNormResidualSquares(design, cells) / freedom);
        return new AdjustedMeans(none, none, variance, freedom, rank, design.parameters());
    }

    /** The fit, and with it the residuals, is unique even where the parameters are not. */
    private static double minimumNormResidualSquares(Design design, List<ScoredCell> cells) {
        RealMatrix rows = MatrixUtils.createRealMatrix(cells.size(), design.parameters());
        for (int p = 0; p < design.parameters(); p++) {
            double[] unit = new double[design.parameters()];
            unit[p] = 1;
            for (int i = 0; i < cells.size(); i++) {
                rows.setEntry(i, p, design.fitted(unit, i));
            }
        }
        double[] scores = cells.stream().mapToDouble(ScoredCell::score).toArray();
        double[] solution = new org.hipparchus.linear.SingularValueDecomposition(rows)
                .getSolver()
                .solve(MatrixUtils.createRealVector(scores))
                .toArray();
        return residualSquares(design, solution);
    }

    private static double residualSquares(Design design, double[] solution) {
        return IntStream.range(0, design.cells())
                .mapToDouble(i -> design.score(i) - design.fitted(solution, i))
                .map(residual -> residual * residual)
                .sum();
    }

    private static int rank(RealMatrix crossProducts) {
        double[] eigenvalues = new EigenDecompositionSymmetric(crossProducts).getEigenvalues();
        double largest = eigenvalues[0];
        return (int) java.util.Arrays.stream(eigenvalues)
                .filter(e -> e > RANK_TOLERANCE * largest)
                .count();
    }

    private static double dot(double[] a, double[] b) {
        double sum = 0;
        for (int i = 0; i < a.length; i++) {
            sum += a[i] * b[i];
        }
        return sum;
    }
}
