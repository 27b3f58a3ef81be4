package org.mossbank.core.comparison;

/**
 * Where values stand: at which prompts, wordings of one put together, and by which raters; with all that follows from that alone.
 * Pairs of candidates whose scores stand at the same places share it.
 */
final class CrossedPattern {
    final int prompts;
    final int raters;
    final int kinds;
    final int[] promptOf;
    final int[] raterOf;
    final int[] kindOf;
    /** Cells of each prompt. */
    final int[] size;

    final SweptRaters byPrompt;
    final SweptRaters byKind;
    /** Sums of squared weights of prompts, raters and cells. */
    final double promptWeights;

    final double raterWeights;
    final double cellWeights;
    /** What the variance between prompts weighs in their sum of squares, with raters in the model and without. */
    final double promptCoefficient;

    final double promptCoefficientWithoutRaters;

    /** The cell that a place belongs to, and how many places each has. */
    private final int[] cellOf;

    private final int[] places;

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
        prompts = families.count;
        raters = ratersThere.count;
        int[] kind = new int[prompts];
        for (int family : familyAt) {
            kind[families.of[family]] = kindOfFamily[family];
        }
        this.kindOf = kinds(kind);
        int highest = 0;
        for (int k : this.kindOf) {
            highest = Math.max(highest, k + 1);
        }
        kinds = highest;
        int[] cellAt = new int[promptAt.length];
        for (int i = 0; i < cellAt.length; i++) {
            cellAt[i] = families.of[familyAt[i]] * raters + ratersThere.of[raterAt[i]];
        }
        Numbers cells = new Numbers(cellAt, prompts * raters);
        cellOf = new int[cellAt.length];
        places = new int[cells.count];
        promptOf = new int[cells.count];
        raterOf = new int[cells.count];
        for (int i = 0; i < cellAt.length; i++) {
            int cell = cells.of[cellAt[i]];
            cellOf[i] = cell;
            places[cell]++;
            promptOf[cell] = cellAt[i] / raters;
            raterOf[cell] = cellAt[i] % raters;
        }
        size = new int[prompts];
        int[] kindOfCell = new int[cells.count];
        for (int i = 0; i < kindOfCell.length; i++) {
            size[promptOf[i]]++;
            kindOfCell[i] = this.kindOf[promptOf[i]];
        }
        byPrompt = new SweptRaters(this, promptOf, prompts);
        byKind = new SweptRaters(this, kindOfCell, kinds);
        promptWeights = squares(promptOf, prompts);
        raterWeights = squares(raterOf, raters);
        double squares = 0;
        for (int i = 0; i < cells.count; i++) {
            squares += weight(i) * weight(i);
        }
        cellWeights = squares;
        promptCoefficient = promptCoefficient(true);
        promptCoefficientWithoutRaters = promptCoefficient(false);
    }

    /** Numbers that occur, counted anew from 0 in their own order. */
    private static final class Numbers {
        private final int[] of;
        private final int count;

        Numbers(int[] values, int most) {
            of = new int[most];
            for (int value : values) {
                of[value] = 1;
            }
            int n = 0;
            for (int i = 0; i < most; i++) {
                if (of[i] > 0) {
                    of[i] = n++;
                }
            }
            count = n;
        }
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
        return promptOf.length;
    }

    /** The value of each cell: the mean of those at its places. */
    double[] cellValues(double[] atPlaces) {
        double[] values = new double[cells()];
        for (int i = 0; i < cellOf.length; i++) {
            values[cellOf[i]] += atPlaces[i] / places[cellOf[i]];
        }
        return values;
    }

    /** What a cell counts for: each prompt alike, and alike within a prompt. */
    private double weight(int cell) {
        return 1.0 / prompts / size[promptOf[cell]];
    }

    double mean(double[] values) {
        double sum = 0;
        for (int i = 0; i < values.length; i++) {
            sum += weight(i) * values[i];
        }
        return sum;
    }

    /** The sum of squared weights of groups of cells. */
    private double squares(int[] groupOf, int groups) {
        double[] share = new double[groups];
        for (int i = 0; i < groupOf.length; i++) {
            share[groupOf[i]] += weight(i);
        }
        double sum = 0;
        for (double w : share) {
            sum += w * w;
        }
        return sum;
    }

    /**
     * The trace of what is left of prompts when kinds, and raters where they are in the model, are swept out:
     * \( \sum_p n_p (1 - n_p / n_k) - \mathrm{tr}(C^- \sum_p q_p q_p^\top) \), with \(q_p\) a prompt's cells by rater less its
     * share of its kind's, and \(C\) the raters' equations with kinds swept out.
     */
    private double promptCoefficient(boolean ratersToo) {
        double[] kindSize = new double[kinds];
        for (int p = 0; p < prompts; p++) {
            kindSize[kindOf[p]] += size[p];
        }
        double trace = 0;
        for (int p = 0; p < prompts; p++) {
            trace += size[p] * (1 - size[p] / kindSize[kindOf[p]]);
        }
        return ratersToo ? trace - byKind.matrix.traceWithInverse(leftOfPrompts(kindSize)) : trace;
    }

    /** The sum over prompts of the squares and products of what is left of each, by rater; one triangle. */
    private double[][] leftOfPrompts(double[] kindSize) {
        double[][] left = new double[raters][raters];
        double[][] ofKind = new double[kinds][raters];
        double[][] weighted = new double[kinds][raters];
        double[] squares = new double[kinds];
        int from = 0;
        for (int p = 0; p < prompts; p++) {
            int k = kindOf[p];
            int to = from + size[p];
            squares[k] += (double) size[p] * size[p];
            // Cells follow each other by prompt.
            for (int i = from; i < to; i++) {
                ofKind[k][raterOf[i]]++;
                weighted[k][raterOf[i]] += size[p];
                for (int j = from; j <= i; j++) {
                    left[raterOf[i]][raterOf[j]]++;
                }
            }
            from = to;
        }
        for (int k = 0; k < kinds; k++) {
            double n = kindSize[k];
            for (int r = 0; r < raters; r++) {
                for (int s = 0; s <= r; s++) {
                    left[r][s] += squares[k] / n / n * ofKind[k][r] * ofKind[k][s]
                            - (weighted[k][r] * ofKind[k][s] + ofKind[k][r] * weighted[k][s]) / n;
                }
            }
        }
        return left;
    }
}
