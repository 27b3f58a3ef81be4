package org.mossbank.core.comparison;

import java.util.List;
import java.util.Optional;

/**
 * Sums of weighted sums of values at the same cells: means and sums by rater are linear in the weights, squares are \(
 * \sum_{kl} w_k w_l Q_{kl} \) with the products of what each two lie off their group's means.
 */
final class MixedSums {
    private final double[] mean;
    private final double[][] squares;
    private final Within byPrompt;
    private final Within byKind;

    /** @param parts values of the pattern's cells, one array a part */
    MixedSums(CrossedPattern pattern, List<double[]> parts) {
        mean = parts.stream().mapToDouble(pattern::mean).toArray();
        squares = multiplied(parts);
        byPrompt = Within.of(pattern.byPrompt, parts);
        byKind = Within.of(pattern.byKind, parts);
    }

    /**
     * @param products of what each two parts lie off their groups' means
     * @param side     what each part lies off, by rater
     */
    private record Within(double[][] products, double[][] side) {
        static Within of(SweptRaters swept, List<double[]> parts) {
            List<double[]> off = parts.stream().map(swept::off).toList();
            return new Within(multiplied(off), off.stream().map(swept::byRater).toArray(double[][]::new));
        }

        SweptRaters.Sums of(double[] weights) {
            double[] sum = new double[side.length == 0 ? 0 : side[0].length];
            for (int k = 0; k < weights.length; k++) {
                for (int r = 0; r < sum.length; r++) {
                    sum[r] += weights[k] * side[k][r];
                }
            }
            return new SweptRaters.Sums(form(products, weights), sum, new double[0]);
        }
    }

    private static double[][] multiplied(List<double[]> parts) {
        double[][] products = new double[parts.size()][parts.size()];
        for (int k = 0; k < products.length; k++) {
            for (int l = 0; l <= k; l++) {
                double sum = 0;
                for (int i = 0; i < parts.get(k).length; i++) {
                    sum += parts.get(k)[i] * parts.get(l)[i];
                }
                products[k][l] = sum;
                products[l][k] = sum;
            }
        }
        return products;
    }

    private static double form(double[][] products, double[] weights) {
        double sum = 0;
        for (int k = 0; k < weights.length; k++) {
            for (int l = 0; l < weights.length; l++) {
                sum += weights[k] * weights[l] * products[k][l];
            }
        }
        return sum;
    }

    /** The most that a form can be, with parts that do not cancel. */
    private static double most(double[][] products, double[] weights) {
        double sum = 0;
        for (int k = 0; k < weights.length; k++) {
            sum += weights[k] * weights[k] * products[k][k];
        }
        return sum;
    }

    /** @return empty where parts cancel so far that what is left might be rounding */
    Optional<CrossedSums> of(double[] weights) {
        double average = 0;
        for (int k = 0; k < weights.length; k++) {
            average += weights[k] * mean[k];
        }
        CrossedSums all = new CrossedSums(average, form(squares, weights), byPrompt.of(weights), byKind.of(weights));
        double enough = CrossedSums.ENOUGH * most(squares, weights);
        return all.byPrompt().within() <= enough || all.byKind().within() <= enough
                ? Optional.empty()
                : Optional.of(all);
    }
}
