package org.mossbank.server.agreement;

import java.util.function.UnaryOperator;
import org.mossbank.core.agreement.AgreementWeights;
import org.mossbank.core.agreement.Coefficient;
import org.mossbank.core.agreement.GwetCoefficient;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.PercentAgreement;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.server.shared.Figure;

/**
 * The coefficients of agreement on one criterion.
 *
 * @param families how many prompts there are, wordings of one counted once
 */
record Coefficients(
        RatingMatrix matrix, Bounded alpha, Bounded ac2, int families, AgreementReport.Resampled resampled) {
    static final double LEVEL = 0.95;
    /**
     * With fewer prompts than this the spread between prompts is hardly known; then answers are left out one by one instead, and
     * the report says so.
     */
    private static final int LEAST_PROMPTS = 5;

    /** A coefficient with its interval. */
    record Bounded(Estimate value, Interval interval) {
        Figure figure() {
            return Figure.of(value, interval);
        }
    }

    /**
     * @param family the prompt that an answer belongs to, by the answer's id
     */
    static Coefficients of(RatingMatrix matrix, UnaryOperator<String> family) {
        int families = KrippendorffAlpha.of(matrix, family).clusterCount();
        boolean enoughPrompts = families >= LEAST_PROMPTS;
        UnaryOperator<String> cluster = enoughPrompts ? family : UnaryOperator.identity();
        KrippendorffAlpha alpha = KrippendorffAlpha.of(matrix, cluster);
        GwetCoefficient ac2 = GwetCoefficient.of(matrix, AgreementWeights.ordinal(matrix.levels()), cluster);
        return new Coefficients(
                matrix,
                new Bounded(alpha.value(Metric.ORDINAL), alpha.interval(Metric.ORDINAL, LEVEL)),
                new Bounded(ac2.value(), ac2.jackknife(LEVEL)),
                families,
                enoughPrompts ? AgreementReport.Resampled.PROMPTS : AgreementReport.Resampled.ANSWERS);
    }

    /** The one that the rule looks at. */
    Bounded decisive(Coefficient rule) {
        return rule == Coefficient.AC2_ORDINAL ? ac2 : alpha;
    }

    AgreementReport.AgreementFigures figures(Coefficient rule, double floor) {
        PercentAgreement exact = PercentAgreement.of(matrix, 0);
        return new AgreementReport.AgreementFigures(
                alpha.figure(),
                ac2.figure(),
                Verdict.of(decisive(rule).figure(), floor),
                Figure.of(exact.pooled()),
                Figure.of(PercentAgreement.of(matrix, 1).pooled()),
                exact.pairs(),
                exact.units(),
                families,
                resampled);
    }
}
