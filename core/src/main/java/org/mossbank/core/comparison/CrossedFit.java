package org.mossbank.core.comparison;

import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;

/** The sums of squares of the models that are compared, their expectations, and what follows for the mean. */
final class CrossedFit {
    /** A sum of squares below this share of the squared values is rounding, and stands for 0. */
    private static final double ROUNDING = 1e-24;
    /** Below so many degrees of freedom of prompts these are not believed to add nothing. */
    private static final double FEW = 4;

    private final CrossedPattern pattern;
    private final Squares byPrompt;
    private final Squares byKind;
    private final double mean;
    private final double n;
    private final double least;

    /**
     * @param within    squares left within groups
     * @param explained how much of them raters explain
     */
    private record Squares(double within, double explained) {}

    CrossedFit(CrossedPattern pattern, CrossedSums sums) {
        this.pattern = pattern;
        this.n = pattern.cells();
        this.mean = sums.mean();
        this.byPrompt = new Squares(sums.byPrompt().within(), pattern.byPrompt.explained(sums.byPrompt()));
        this.byKind = new Squares(sums.byKind().within(), pattern.byKind.explained(sums.byKind()));
        this.least = ROUNDING * sums.squares();
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

    CrossedMean mean() {
        int ratersRank = pattern.byPrompt.matrix.rank();
        int ratersOfKinds = pattern.byKind.matrix.rank();
        double bothLeft = notRounding(byPrompt.within() - byPrompt.explained());
        double residualFreedom = n - pattern.prompts - ratersRank;
        if (residualFreedom < 1 || ratersRank == 0) {
            // Too few cells share a prompt to tell raters from what is left: what they add is in it.
            return withoutRaters();
        }
        Square residual = new Square(bothLeft, residualFreedom, 1);
        Square rater = new Square(notRounding(byPrompt.explained()), ratersRank, pattern.byPrompt.trace);
        double kindsAndRatersLeft = notRounding(byKind.within() - byKind.explained());
        Square prompt = new Square(
                notRounding(kindsAndRatersLeft - bothLeft),
                pattern.prompts + ratersRank - pattern.kinds - ratersOfKinds,
                pattern.promptCoefficient);
        if (rater.component(residual.mean()) <= 0) {
            return withoutRaters();
        }
        if (prompt.freedom < 1 || prompt.component(residual.mean()) <= 0) {
            Square raterAlone = new Square(notRounding(byKind.explained()), ratersOfKinds, pattern.byKind.trace);
            Square left = new Square(kindsAndRatersLeft, n - pattern.kinds - ratersOfKinds, 1);
            return raterAlone.component(left.mean()) <= 0 ? residualAlone() : cautious(told(null, raterAlone, left));
        }
        return told(prompt, rater, residual);
    }

    private CrossedMean withoutRaters() {
        double left = notRounding(byPrompt.within());
        double freedom = n - pattern.prompts;
        double promptFreedom = pattern.prompts - pattern.kinds;
        Square prompt =
                new Square(notRounding(byKind.within() - left), promptFreedom, pattern.promptCoefficientWithoutRaters);
        if (freedom < 1) {
            // One cell a prompt: what lies between prompts is all there is.
            return residualAlone();
        }
        Square residual = new Square(left, freedom, 1);
        return prompt.component(residual.mean()) <= 0 ? residualAlone() : told(prompt, null, residual);
    }

    private CrossedMean residualAlone() {
        return cautious(told(null, null, new Square(notRounding(byKind.within()), n - pattern.kinds, 1)));
    }

    /** That prompts seem to add nothing means little where there are hardly any: then they still bound what is known. */
    private CrossedMean cautious(CrossedMean found) {
        double promptFreedom = pattern.prompts - pattern.kinds;
        return promptFreedom >= FEW
                ? found
                : new CrossedMean(
                        found.mean(),
                        found.standardError(),
                        Math.min(found.freedom(), promptFreedom),
                        found.components(),
                        here());
    }

    private CrossedMean told(@Nullable Square prompt, @Nullable Square rater, Square residual) {
        double ofResidual = pattern.cellWeights;
        double variance = 0;
        double spread = 0;
        if (prompt != null) {
            double c = pattern.promptWeights / prompt.coefficient * prompt.freedom;
            ofResidual -= c;
            variance += c * prompt.mean();
            spread += square(c * prompt.mean()) / prompt.freedom;
        }
        if (rater != null) {
            double c = pattern.raterWeights / rater.coefficient * rater.freedom;
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
                        residual.mean()),
                here());
    }

    private CrossedMean.Here here() {
        double freedom = n - pattern.prompts - pattern.byPrompt.matrix.rank();
        if (freedom < 1) {
            return new CrossedMean.Here(Estimate.undefined(Reason.NO_FREEDOM_LEFT), 0);
        }
        double left = notRounding(byPrompt.within() - byPrompt.explained());
        return new CrossedMean.Here(Estimate.of(Math.sqrt(left / freedom * pattern.cellWeights)), freedom);
    }

    private static double square(double x) {
        return x * x;
    }
}
