package org.mossbank.core.rubric;

import org.mossbank.core.estimate.Require;

/**
 * An answer at or below a level of one criterion, correctness as a rule, scores at most a cap, however fine the rest is.
 *
 * <p>\[ s' = \min(s, \mathrm{cap}) \text{ if } g \le \mathrm{level}, \text{ else } s \] in points of score; not defined where
 * the criterion was not applicable, and then it caps nothing.
 *
 * @param level the highest level that is capped
 * @param cap   the most that such an answer may score, in [0, 100]
 */
public record Gate(int level, double cap) {
    /** @throws IllegalArgumentException if the level is negative or the cap outside [0, 100] */
    public Gate {
        Require.atLeast("level", 0, level);
        Require.that(cap >= 0 && cap <= OverallScore.HIGHEST, "cap", "must lie in [0, 100]", cap);
    }

    /** A grade of the gate's criterion, capped where the gate applies. */
    public CriterionGrade apply(CriterionGrade grade) {
        return grade.level() > level
                ? grade
                : new CriterionGrade(grade.weight(), grade.level(), grade.highest(), Math.min(cap, grade.cap()));
    }
}
