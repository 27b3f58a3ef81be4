package org.mossbank.core.comparison;

import java.util.Optional;
import java.util.function.IntToDoubleFunction;

/**
 * All that values at a pattern's cells come down to, for their mean and what it varies by. Sums of what is left of a prompt's
 * values, and weighted ones of several values, follow from those that are known without going through all cells again.
 *
 * @param mean     each prompt alike
 * @param squares  of the values as they are
 * @param byPrompt what is left within prompts
 * @param byKind   what is left within kinds
 */
record CrossedSums(double mean, double squares, SweptRaters.Sums byPrompt, SweptRaters.Sums byKind) {
    /** Where less than this share of the squares is left, it may be rounding, and all cells are gone through. */
    static final double ENOUGH = 1e-6;

    /** @param values of the pattern's cells */
    static CrossedSums of(CrossedPattern pattern, double[] values) {
        double squares = 0;
        for (double x : values) {
            squares += x * x;
        }
        return new CrossedSums(
                pattern.mean(values), squares, pattern.byPrompt.sums(values), pattern.byKind.sums(values));
    }

    /**
     * Those without one prompt.
     *
     * <p>With \(o_i\) what a cell of the prompt's kind lies off the mean of the \(n\) there are, and \(d = \sum o_i\) over the
     * prompt's own cells, the mean of the others lies off by \(-d / n'\), and \[ \sum_{\text{rest}} (x - m')^2 =
     * \sum_{\text{all}} o^2 - \sum_{\text{own}} o^2 - d^2 / n'. \]
     *
     * @param whole  the pattern with it
     * @param rest   the pattern without it
     * @param family of the prompt
     * @param value  of a cell of the whole pattern
     * @return empty where so little is left that it might be rounding, or nothing that could be compared
     */
    Optional<CrossedSums> without(CrossedPattern whole, CrossedPattern rest, int family, IntToDoubleFunction value) {
        int prompt = whole.numberOf(family);
        if (!rest.comparesRaters()) {
            return Optional.empty();
        }
        if (prompt < 0) {
            return Optional.of(this);
        }
        int first = whole.first(prompt);
        int last = whole.first(prompt + 1);
        double own = 0;
        for (int i = first; i < last; i++) {
            own += value.applyAsDouble(i);
        }
        own /= last - first;
        int kind = whole.kindOf(prompt);
        double centre = byKind.mean()[kind];
        double[] ofPrompt = byPrompt.side().clone();
        double[] ofKind = byKind.side().clone();
        int[] kindLeft = whole.byKind.of(kind).clone();
        double left = squares;
        double withinPrompt = byPrompt.within();
        double withinKind = byKind.within();
        double off = 0;
        for (int i = first; i < last; i++) {
            int rater = whole.raterOf(i);
            double x = value.applyAsDouble(i);
            left -= x * x;
            withinPrompt -= (x - own) * (x - own);
            withinKind -= (x - centre) * (x - centre);
            ofPrompt[rater] -= x - own;
            ofKind[rater] -= x - centre;
            kindLeft[rater]--;
            off += x - centre;
        }
        int n = whole.byKind.size(kind) - (last - first);
        withinKind -= off * off / n;
        for (int r = 0; r < ofKind.length; r++) {
            ofKind[r] += kindLeft[r] * off / n;
        }
        if (withinPrompt <= ENOUGH * squares || withinKind <= ENOUGH * squares) {
            return Optional.empty();
        }
        return Optional.of(new CrossedSums(
                (mean * whole.prompts - own) / rest.prompts,
                left,
                new SweptRaters.Sums(withinPrompt, ofPrompt, new double[0]),
                new SweptRaters.Sums(withinKind, ofKind, new double[0])));
    }
}
