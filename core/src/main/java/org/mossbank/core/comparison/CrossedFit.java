package org.mossbank.core.comparison;

import java.util.Arrays;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Estimate;

/** The sums of squares of the models that are compared, their expectations, and what follows for the mean. */
final class CrossedFit {
    /** A sum of squares below this share of the squared values is rounding, and stands for 0. */
    private static final double ROUNDING = 1e-24;
    /** Below so many degrees of freedom of prompts these are not believed to add nothing. */
    private static final double FEW = 4;

    private final CrossedLayout layout;
    private final SweptRaters byPrompt;
    private final SweptRaters byKind;
    private final double n;
    private final double promptWeights;
    private final double raterWeights;
    private final double cellWeights;
    private final double least;

    CrossedFit(CrossedLayout layout) {
        this.layout = layout;
        this.n = layout.cells();
        this.byPrompt = new SweptRaters(layout, layout.promptOf, layout.prompts);
        this.byKind = new SweptRaters(layout, kinds(), layout.kinds);
        this.promptWeights = shares(layout.promptOf, layout.prompts);
        this.raterWeights = shares(layout.raterOf, layout.raters);
        this.cellWeights = shares(IntStream.range(0, layout.cells()).toArray(), layout.cells());
        this.least = ROUNDING * Arrays.stream(layout.value).map(x -> x * x).sum();
    }

    private int[] kinds() {
        return Arrays.stream(layout.promptOf).map(p -> layout.kindOf[p]).toArray();
    }

    /** The sum of squared weights of groups of cells. */
    private double shares(int[] groupOf, int groups) {
        double[] share = new double[groups];
        for (int i = 0; i < groupOf.length; i++) {
            share[groupOf[i]] += layout.weight(i);
        }
        return Arrays.stream(share).map(w -> w * w).sum();
    }

    /** A mean square with its degrees of freedom, and what a component weighs in its expectation. */
    private record Square(double sum, double freedom, double coefficient) {
        double mean() {
            return sum / freedom;
        }

        /** The component, given the residual's. */
        double component(double residual) {
            return (sum - freedom * residual) / coefficient;
        }
    }

    private double notRounding(double sum) {
        return sum <= least ? 0 : sum;
    }

    CrossedMean mean(double mean) {
        double bothLeft = notRounding(byPrompt.within - byPrompt.explained);
        double residualFreedom = n - layout.prompts - byPrompt.matrix.rank();
        if (residualFreedom < 1 || byPrompt.matrix.rank() == 0) {
            // Too few cells share a prompt to tell raters from what is left: what they add is in it.
            return withoutRaters(mean);
        }
        Square residual = new Square(bothLeft, residualFreedom, 1);
        Square rater = new Square(notRounding(byPrompt.explained), byPrompt.matrix.rank(), byPrompt.trace);
        double kindsAndRatersLeft = notRounding(byKind.within - byKind.explained);
        Square prompt = new Square(
                notRounding(kindsAndRatersLeft - bothLeft),
                layout.prompts + byPrompt.matrix.rank() - layout.kinds - byKind.matrix.rank(),
                promptCoefficient(true));
        if (rater.component(residual.mean()) <= 0) {
            return withoutRaters(mean);
        }
        if (prompt.freedom < 1 || prompt.component(residual.mean()) <= 0) {
            Square raterAlone = new Square(notRounding(byKind.explained), byKind.matrix.rank(), byKind.trace);
            Square left = new Square(kindsAndRatersLeft, n - layout.kinds - byKind.matrix.rank(), 1);
            return raterAlone.component(left.mean()) <= 0
                    ? residualAlone(mean)
                    : cautious(told(mean, null, raterAlone, left));
        }
        return told(mean, prompt, rater, residual);
    }

    private CrossedMean withoutRaters(double mean) {
        double left = notRounding(byPrompt.within);
        double freedom = n - layout.prompts;
        double promptFreedom = layout.prompts - layout.kinds;
        Square prompt = new Square(notRounding(byKind.within - left), promptFreedom, promptCoefficient(false));
        if (freedom < 1) {
            // One cell a prompt: what lies between prompts is all there is.
            return residualAlone(mean);
        }
        Square residual = new Square(left, freedom, 1);
        return prompt.component(residual.mean()) <= 0 ? residualAlone(mean) : told(mean, prompt, null, residual);
    }

    private CrossedMean residualAlone(double mean) {
        return cautious(told(mean, null, null, new Square(notRounding(byKind.within), n - layout.kinds, 1)));
    }

    /** That prompts seem to add nothing means little where there are hardly any: then they still bound what is known. */
    private CrossedMean cautious(CrossedMean found) {
        double promptFreedom = layout.prompts - layout.kinds;
        return promptFreedom >= FEW
                ? found
                : new CrossedMean(
                        found.mean(),
                        found.standardError(),
                        Math.min(found.freedom(), promptFreedom),
                        found.components());
    }

    private CrossedMean told(double mean, @Nullable Square prompt, @Nullable Square rater, Square residual) {
        double ofResidual = cellWeights;
        double variance = 0;
        double spread = 0;
        if (prompt != null) {
            double c = promptWeights / prompt.coefficient * prompt.freedom;
            ofResidual -= c;
            variance += c * prompt.mean();
            spread += square(c * prompt.mean()) / prompt.freedom;
        }
        if (rater != null) {
            double c = raterWeights / rater.coefficient * rater.freedom;
            ofResidual -= c;
            variance += c * rater.mean();
            spread += square(c * rater.mean()) / rater.freedom;
        }
        variance += ofResidual * residual.mean();
        spread += square(ofResidual * residual.mean()) / residual.freedom;
        double freedom = spread == 0 ? residual.freedom : Math.max(1, square(variance) / spread);
        return new CrossedMean(
                mean,
                Estimate.of(Math.sqrt(Math.max(0, variance))),
                freedom,
                new CrossedMean.Components(
                        prompt == null ? 0 : prompt.component(residual.mean()),
                        rater == null ? 0 : rater.component(residual.mean()),
                        residual.mean()));
    }

    private static double square(double x) {
        return x * x;
    }

    /** The trace of what is left of prompts when kinds, and raters where they are in the model, are swept out. */
    private double promptCoefficient(boolean ratersToo) {
        int[] size = new int[layout.prompts];
        int[][] of = new int[layout.prompts][layout.raters];
        int[] kindSize = new int[layout.kinds];
        int[][] ofKind = new int[layout.kinds][layout.raters];
        for (int i = 0; i < layout.cells(); i++) {
            int p = layout.promptOf[i];
            int k = layout.kindOf[p];
            size[p]++;
            kindSize[k]++;
            of[p][layout.raterOf[i]]++;
            ofKind[k][layout.raterOf[i]]++;
        }
        double trace = 0;
        for (int p = 0; p < layout.prompts; p++) {
            int k = layout.kindOf[p];
            double share = (double) size[p] / kindSize[k];
            trace += size[p] * (1 - share);
            if (ratersToo) {
                double[] column = new double[layout.raters];
                for (int r = 0; r < layout.raters; r++) {
                    column[r] = of[p][r] - share * ofKind[k][r];
                }
                trace -= byKind.matrix.squaredNorm(column);
            }
        }
        return trace;
    }
}
