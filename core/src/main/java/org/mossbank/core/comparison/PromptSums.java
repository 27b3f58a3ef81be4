package org.mossbank.core.comparison;

/** What is summed over prompts, so that one can be taken out again. */
final class PromptSums {
    /** One over the cells of each prompt: of those that a rater graded, and of all. */
    final double[] share;

    double shares;
    /** How often two raters stand at one prompt; one triangle. */
    final double[][] together;
    /** By kind: cells of a prompt squared, and times its raters. */
    final double[] squares;

    final double[][] weighted;

    PromptSums(int raters, int kinds) {
        share = new double[raters];
        together = new double[raters][raters];
        squares = new double[kinds];
        weighted = new double[kinds][raters];
    }

    PromptSums(PromptSums like) {
        share = like.share.clone();
        shares = like.shares;
        together = copy(like.together);
        squares = like.squares.clone();
        weighted = copy(like.weighted);
    }

    static double[][] copy(double[][] rows) {
        double[][] copy = new double[rows.length][];
        for (int i = 0; i < copy.length; i++) {
            copy[i] = rows[i].clone();
        }
        return copy;
    }

    /** @param sign 1 to put it in, -1 to take it out */
    void add(int[] raterOf, int first, int last, int kind, int sign) {
        int size = last - first;
        shares += sign / (double) size;
        squares[kind] += sign * (double) size * size;
        for (int i = first; i < last; i++) {
            int r = raterOf[i];
            share[r] += sign / (double) size;
            weighted[kind][r] += sign * size;
            for (int j = first; j <= i; j++) {
                together[r][raterOf[j]] += sign;
            }
        }
    }
}
