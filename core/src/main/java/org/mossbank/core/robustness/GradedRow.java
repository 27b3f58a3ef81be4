package org.mossbank.core.robustness;

import java.util.Arrays;
import org.mossbank.core.rubric.OverallScore;

/** One rater's grades of one answer, as shares of the highest level; NaN where a criterion was not applicable. */
final class GradedRow {
    /** Where a score stands. */
    record Place(String candidate, String prompt, String rater) {
        @Override
        public int hashCode() {
            return mixed(mixed(candidate.hashCode(), prompt.hashCode()), rater.hashCode());
        }
    }

    /** Keys that count up, as p1 and p2 do, have hashes that lie close, and a sum of multiples by 31 would meet again and again. */
    static int mixed(int one, int other) {
        int spread = one * 0x9E3779B9;
        return (spread ^ spread >>> 15) + other;
    }

    private final GradedAnswers.Key key;
    private final Place place;
    /** Its number among the places. */
    private final int at;

    private final double[] share;
    private double cap = OverallScore.HIGHEST;

    GradedRow(GradedAnswers.Key key, Place place, int at, int criteria) {
        this.key = key;
        this.place = place;
        this.at = at;
        this.share = new double[criteria];
        Arrays.fill(share, Double.NaN);
    }

    /** @param grade a share of the highest level */
    void graded(int criterion, double grade, double mostItMayScore) {
        share[criterion] = grade;
        cap = Math.min(cap, mostItMayScore);
    }

    GradedAnswers.Key key() {
        return key;
    }

    Place place() {
        return place;
    }

    int at() {
        return at;
    }

    double share(int criterion) {
        return share[criterion];
    }

    /** Whether every criterion was graded and nothing caps the score: then it is a sum over criteria. */
    boolean isPlain() {
        if (cap < OverallScore.HIGHEST) {
            return false;
        }
        for (double one : share) {
            if (Double.isNaN(one)) {
                return false;
            }
        }
        return true;
    }

    /** NaN where no criterion with weight was graded. */
    double score(double[] weights) {
        double sum = 0;
        double total = 0;
        for (int k = 0; k < weights.length; k++) {
            if (!Double.isNaN(share[k])) {
                sum += weights[k] * share[k];
                total += weights[k];
            }
        }
        return total == 0 ? Double.NaN : Math.min(cap, OverallScore.HIGHEST * sum / total);
    }
}
