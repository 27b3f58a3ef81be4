package org.mossbank.core.comparison;

import java.util.Arrays;
import java.util.Optional;
import java.util.stream.IntStream;

/**
 * Where values stand: at which prompts, wordings of one put together, and by which raters; with all that follows from that alone.
 * Pairs of candidates whose scores stand at the same places share it.
 */
final class CrossedPattern {
    /** With fewer prompts of a kind, taking one out leaves it alone, and it stands with others. */
    private static final int FEWEST_OF_KIND = 3;

    final int prompts;
    final int raters;
    final int kinds;

    final SweptRaters byPrompt;
    final SweptRaters byKind;
    /** Sums of squared weights of prompts, raters and cells. */
    final double promptWeights;

    final double raterWeights;
    final double cellWeights;
    /** What the variance between prompts weighs in their sum of squares, with raters in the model and without. */
    final double promptCoefficient;

    final double promptCoefficientWithoutRaters;

    /** The number of each family that is there, else -1. */
    private final int[] numberOf;

    private final int[] kindOf;
    /** Cells of prompt p are those from from[p] to from[p + 1]. */
    private final int[] from;

    private final int[] raterOf;
    /** The cell that a place belongs to, and how many places each has. */
    private final int[] cellOf;

    private final int[] places;
    /** Whether each place is a cell of its own, in the same order. */
    private final boolean oneEach;

    private final PromptSums sums;

    /**
     * @param promptAt the prompt of each place; places in the order of prompts, then raters
     * @param raterAt  the rater of each place; several places of one prompt's family and rater are one cell
     * @param familyOf the family of each prompt there may be
     * @param kindOf   the kind of each prompt there may be
     * @param most     raters there may be
     */
    CrossedPattern(int[] promptAt, int[] raterAt, int[] familyOf, int[] kindOf, int most) {
        int[] familyAt = new int[promptAt.length];
        int[] kindOfFamily = new int[familyOf.length];
        for (int i = 0; i < promptAt.length; i++) {
            familyAt[i] = familyOf[promptAt[i]];
            kindOfFamily[familyAt[i]] = kindOf[promptAt[i]];
        }
        Numbers families = new Numbers(familyAt, familyOf.length);
        Numbers ratersThere = new Numbers(raterAt, most);
        numberOf = families.of;
        prompts = families.count;
        raters = ratersThere.count;
        int[] kind = new int[prompts];
        int[] cellAt = new int[promptAt.length];
        for (int i = 0; i < cellAt.length; i++) {
            int prompt = families.of[familyAt[i]];
            kind[prompt] = kindOfFamily[familyAt[i]];
            cellAt[i] = prompt * raters + ratersThere.of[raterAt[i]];
        }
        this.kindOf = kinds(kind);
        kinds = highest(this.kindOf) + 1;
        Numbers cells = new Numbers(cellAt, prompts * raters);
        cellOf = new int[cellAt.length];
        places = new int[cells.count];
        raterOf = new int[cells.count];
        int[] promptOf = new int[cells.count];
        for (int i = 0; i < cellAt.length; i++) {
            int cell = cells.of[cellAt[i]];
            cellOf[i] = cell;
            places[cell]++;
            promptOf[cell] = cellAt[i] / raters;
            raterOf[cell] = cellAt[i] % raters;
        }
        oneEach = IntStream.range(0, cellOf.length).allMatch(i -> cellOf[i] == i);
        from = starts(promptOf, prompts);
        byPrompt = SweptRaters.of(promptOf, raterOf, prompts, raters);
        byKind = SweptRaters.of(kindsOfCells(), raterOf, kinds, raters);
        sums = new PromptSums(raters, kinds);
        for (int p = 0; p < prompts; p++) {
            sums.add(raterOf, from[p], from[p + 1], this.kindOf[p], 1);
        }
        promptWeights = 1.0 / prompts;
        raterWeights = raterWeights();
        cellWeights = sums.shares / prompts / prompts;
        promptCoefficientWithoutRaters = leftOfKinds();
        promptCoefficient = promptCoefficientWithoutRaters - byKind.matrix.traceWithInverse(leftOfPrompts());
    }

    /** Without one prompt, whose places are those of its cells, one each. */
    private CrossedPattern(CrossedPattern whole, int prompt, int[] taken) {
        prompts = whole.prompts - 1;
        raters = whole.raters;
        kinds = whole.kinds;
        numberOf = whole.numberOf;
        int first = whole.from[prompt];
        int last = whole.from[prompt + 1];
        kindOf = spliced(whole.kindOf, prompt, prompt + 1, 0);
        from = spliced(whole.from, prompt, prompt + 1, last - first);
        raterOf = spliced(whole.raterOf, first, last, 0);
        places = spliced(whole.places, first, last, 0);
        // Of places nothing is asked before a cell: those of the prompt go as its cells do.
        int firstPlace = firstPlace(whole.cellOf, first);
        int lastPlace = firstPlace(whole.cellOf, last);
        cellOf = spliced(whole.cellOf, firstPlace, lastPlace, last - first);
        oneEach = whole.oneEach;
        int[] promptOf = new int[raterOf.length];
        for (int p = 0; p < prompts; p++) {
            Arrays.fill(promptOf, from[p], from[p + 1], p);
        }
        byPrompt = whole.byPrompt.without(promptOf, raterOf, prompt, taken);
        byKind = whole.byKind.without(kindsOfCells(), raterOf, whole.kindOf[prompt], taken);
        sums = new PromptSums(whole.sums);
        sums.add(whole.raterOf, first, last, whole.kindOf[prompt], -1);
        promptWeights = 1.0 / prompts;
        raterWeights = raterWeights();
        cellWeights = sums.shares / prompts / prompts;
        promptCoefficientWithoutRaters = leftOfKinds();
        promptCoefficient = promptCoefficientWithoutRaters - byKind.matrix.traceWithInverse(leftOfPrompts());
    }

    /**
     * The same without one family of prompts; what follows from the others is not worked out anew.
     *
     * @return empty where that would change which kinds stand together, or which raters there are
     */
    Optional<CrossedPattern> without(int family) {
        int prompt = numberOf[family];
        if (prompt < 0) {
            return Optional.of(this);
        }
        int ofKind = 0;
        for (int kind : kindOf) {
            ofKind += kind == kindOf[prompt] ? 1 : 0;
        }
        int[] taken = new int[raters];
        for (int i = from[prompt]; i < from[prompt + 1]; i++) {
            taken[raterOf[i]]++;
        }
        for (int r = 0; r < raters; r++) {
            if (taken[r] > 0 && sums.together[r][r] <= taken[r]) {
                return Optional.empty();
            }
        }
        return ofKind < FEWEST_OF_KIND ? Optional.empty() : Optional.of(new CrossedPattern(this, prompt, taken));
    }

    /** What is left of an array without a stretch, what follows lowered by so much. */
    private static int[] spliced(int[] all, int first, int last, int lower) {
        int[] left = new int[all.length - (last - first)];
        System.arraycopy(all, 0, left, 0, first);
        for (int i = last; i < all.length; i++) {
            left[i - (last - first)] = all[i] - lower;
        }
        return left;
    }

    /** Cells ascend with places, as long as each family is one prompt. */
    private static int firstPlace(int[] cellOf, int cell) {
        int low = 0;
        int high = cellOf.length;
        while (low < high) {
            int middle = (low + high) >>> 1;
            if (cellOf[middle] < cell) {
                low = middle + 1;
            } else {
                high = middle;
            }
        }
        return low;
    }

    private static int highest(int[] values) {
        int highest = -1;
        for (int value : values) {
            highest = Math.max(highest, value);
        }
        return highest;
    }

    private static int[] starts(int[] groupOf, int groups) {
        int[] from = new int[groups + 1];
        for (int group : groupOf) {
            from[group + 1]++;
        }
        for (int g = 0; g < groups; g++) {
            from[g + 1] += from[g];
        }
        return from;
    }

    private int[] kindsOfCells() {
        int[] of = new int[raterOf.length];
        for (int p = 0; p < prompts; p++) {
            Arrays.fill(of, from[p], from[p + 1], kindOf[p]);
        }
        return of;
    }

    /** Kinds with a single prompt are put together; a lone one joins the first kind that has more ({@link PromptGroups}). */
    private static int[] kinds(int[] kindOfPrompt) {
        int most = 0;
        for (int kind : kindOfPrompt) {
            most = Math.max(most, kind + 1);
        }
        int[] count = new int[most];
        for (int kind : kindOfPrompt) {
            count[kind]++;
        }
        int[] number = new int[most];
        int next = 0;
        int singles = 0;
        for (int kind = 0; kind < most; kind++) {
            if (count[kind] > 1) {
                number[kind] = next++;
            } else {
                singles += count[kind];
            }
        }
        int ofSingles = singles == 1 && next > 0 ? 0 : next;
        int[] kinds = new int[kindOfPrompt.length];
        for (int p = 0; p < kinds.length; p++) {
            kinds[p] = count[kindOfPrompt[p]] > 1 ? number[kindOfPrompt[p]] : ofSingles;
        }
        return kinds;
    }

    int cells() {
        return raterOf.length;
    }

    /** Whether there are enough raters and prompts to tell what a mean varies by. */
    boolean comparesRaters() {
        return raters >= 2 && prompts > kinds;
    }

    /** The number of a family's prompt; -1 if it is not there. */
    int numberOf(int family) {
        return numberOf[family];
    }

    /** The first cell of a prompt, or where the last one's end. */
    int first(int prompt) {
        return from[prompt];
    }

    int kindOf(int prompt) {
        return kindOf[prompt];
    }

    int raterOf(int cell) {
        return raterOf[cell];
    }

    /** The value of each cell: the mean of those at its places. */
    double[] cellValues(double[] atPlaces) {
        if (oneEach) {
            return atPlaces;
        }
        double[] values = new double[cells()];
        for (int i = 0; i < cellOf.length; i++) {
            values[cellOf[i]] += atPlaces[i] / places[cellOf[i]];
        }
        return values;
    }

    /** Each prompt alike, and alike within a prompt. */
    double mean(double[] values) {
        double sum = 0;
        for (int p = 0; p < prompts; p++) {
            double ofPrompt = 0;
            for (int i = from[p]; i < from[p + 1]; i++) {
                ofPrompt += values[i];
            }
            sum += ofPrompt / (from[p + 1] - from[p]);
        }
        return sum / prompts;
    }

    private double raterWeights() {
        double sum = 0;
        for (double share : sums.share) {
            sum += share / prompts * share / prompts;
        }
        return sum;
    }

    /** What is left of prompts when kinds are swept out: \( \sum_p n_p (1 - n_p / n_k) \). */
    private double leftOfKinds() {
        double left = 0;
        for (int k = 0; k < kinds; k++) {
            left += byKind.size(k) - sums.squares[k] / byKind.size(k);
        }
        return left;
    }

    /**
     * The sum over prompts of the squares and products of what is left of each, by rater; one triangle. With raters in the model, what
     * is left of prompts is \( \sum_p n_p (1 - n_p / n_k) - \mathrm{tr}(C^- \sum_p q_p q_p^\top) \), with \(q_p\) a prompt's
     * cells by rater less its share of its kind's, and \(C\) the raters' equations with kinds swept out.
     */
    private double[][] leftOfPrompts() {
        double[][] left = PromptSums.copy(sums.together);
        for (int k = 0; k < kinds; k++) {
            double n = byKind.size(k);
            int[] of = byKind.of(k);
            double[] weighted = sums.weighted[k];
            for (int r = 0; r < raters; r++) {
                for (int s = 0; s <= r; s++) {
                    left[r][s] +=
                            sums.squares[k] / n / n * of[r] * of[s] - (weighted[r] * of[s] + of[r] * weighted[s]) / n;
                }
            }
        }
        return left;
    }
}
