package org.mossbank.core.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class PairwiseAgreementTest {
    private static final RatingMatrix THREE_RATERS = RatingMatrix.ofLevels(
            List.of(
                    new Rating("a", "x", 0),
                    new Rating("a", "y", 1),
                    new Rating("a", "z", 3),
                    new Rating("b", "x", 2),
                    new Rating("b", "y", 2),
                    new Rating("c", "x", 4)),
            4);

    @Test
    public void percentAgreementByHand() {
        // Pairs: a has (0,1), (0,3), (1,3); b has (2,2); c has none.
        PercentAgreement exact = PercentAgreement.of(THREE_RATERS, 0);
        assertThat(exact.pooled()).isEqualTo(Estimate.of(1 / 4.0));
        assertThat(exact.unitMean()).isEqualTo(Estimate.of((0 + 1) / 2.0));
        assertThat(exact.raterPairMean().value().orElseThrow()).isCloseTo((1 / 2.0 + 0 + 0) / 3, within(1e-15));
        assertThat(exact.pairs()).isEqualTo(4);
        assertThat(exact.units()).isEqualTo(2);
        assertThat(PercentAgreement.of(THREE_RATERS, 1).pooled()).isEqualTo(Estimate.of(2 / 4.0));
        assertThat(PercentAgreement.of(THREE_RATERS, 4).pooled()).isEqualTo(Estimate.of(1));
    }

    @Test
    public void kappaIsOneForEqualGradesAndSymmetric() {
        List<Rating> ratings = List.of(
                new Rating("a", "x", 0),
                new Rating("a", "y", 1),
                new Rating("b", "x", 2),
                new Rating("b", "y", 2),
                new Rating("c", "x", 4),
                new Rating("c", "y", 3),
                new Rating("d", "x", 1),
                new Rating("d", "y", 1));
        RatingMatrix matrix = RatingMatrix.ofLevels(ratings, 4);
        AgreementWeights weights = AgreementWeights.quadratic(5);
        assertThat(CohenKappa.of(matrix, 0, 0, weights).kappa()).isEqualTo(Estimate.of(1));
        assertThat(CohenKappa.of(matrix, 0, 1, weights).kappa().value().orElseThrow())
                .isCloseTo(CohenKappa.of(matrix, 1, 0, weights).kappa().value().orElseThrow(), within(1e-15));
    }

    @Test
    public void kappaUndefinedWithoutCommonAnswer() {
        RatingMatrix matrix = RatingMatrix.ofLevels(List.of(new Rating("a", "x", 0), new Rating("b", "y", 1)), 4);
        CohenKappa kappa = CohenKappa.of(matrix, 0, 1, AgreementWeights.linear(5));
        assertThat(kappa.kappa()).isEqualTo(Estimate.undefined(Reason.NO_PAIRS));
        assertThat(kappa.count()).isZero();
    }

    @Test
    public void splitsAreTwoLevelsOrMoreApartWidestFirst() {
        RatingMatrix matrix = RatingMatrix.ofLevels(
                List.of(
                        new Rating("near", "x", 1),
                        new Rating("near", "y", 2),
                        new Rating("wide", "x", 3),
                        new Rating("wide", "y", 1),
                        new Rating("widest", "x", 0),
                        new Rating("widest", "y", 4)),
                4);
        assertThat(Split.of(matrix))
                .extracting(Split::unit, Split::distance)
                .containsExactly(
                        org.assertj.core.api.Assertions.tuple("widest", 4),
                        org.assertj.core.api.Assertions.tuple("wide", 2));
        assertThat(Split.of(matrix).get(1).ratings()).first().isEqualTo(new Rating("wide", "y", 1));
    }
}
