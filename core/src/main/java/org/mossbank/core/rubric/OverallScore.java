package org.mossbank.core.rubric;

import java.util.Collection;
import java.util.OptionalDouble;

/**
 * One rater's overall score of one answer.
 *
 * <p>\[ 100 \sum_c w_c g_c / L_c \,/ \sum_c w_c \] over the criteria that were graded: what was not applicable is left
 * out and the other weights make up for it. A grade may cap the whole ({@link Gate}).
 */
public final class OverallScore {
    /** The score of an answer at the highest level on every criterion. */
    public static final double HIGHEST = 100;

    private OverallScore() {}

    /** The score in [0, 100]; empty if no criterion with weight was graded. */
    public static OptionalDouble of(Collection<CriterionGrade> grades) {
        double weights = 0;
        double sum = 0;
        double cap = HIGHEST;
        for (CriterionGrade grade : grades) {
            weights += grade.weight();
            sum += grade.weight() * grade.level() / grade.highest();
            cap = Math.min(cap, grade.cap());
        }
        return weights == 0 ? OptionalDouble.empty() : OptionalDouble.of(Math.min(cap, HIGHEST * sum / weights));
    }
}
