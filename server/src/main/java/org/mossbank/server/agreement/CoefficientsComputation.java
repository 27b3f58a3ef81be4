package org.mossbank.server.agreement;

import java.util.List;
import java.util.stream.IntStream;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.table.TableAgreement;
import org.mossbank.core.table.TableScale;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.springframework.stereotype.Component;

/** Works out every coefficient, for those who ask for another than the one that decides. */
@Component
class CoefficientsComputation {
    private final AgreementBasis basis;
    private final HeavyWork heavy;

    CoefficientsComputation(AgreementBasis basis, HeavyWork heavy) {
        this.basis = basis;
        this.heavy = heavy;
    }

    CoefficientsReport compute(StudyId study) {
        AgreementData data = basis.of(study);
        return heavy.run(() -> compute(data));
    }

    static CoefficientsReport compute(AgreementData data) {
        return new CoefficientsReport(data.criteria().stream()
                .flatMap(c -> Stream.concat(
                        Stream.of(within(data, c, null, data.grades())),
                        data.kinds().stream()
                                .filter(k -> c.appliesTo(k.id()))
                                .map(k -> within(data, c, k.id(), data.within(k)))))
                .toList());
    }

    private static CoefficientsReport.Within within(
            AgreementData data, CriterionView criterion, @Nullable KindId kind, List<SentGrade> part) {
        List<Rating> ratings = data.ratings(criterion, part);
        RatingMatrix matrix = RatingMatrix.ofLevels(ratings, criterion.highestLevel());
        double[] numbers = IntStream.rangeClosed(0, criterion.highestLevel())
                .asDoubleStream()
                .toArray();
        return new CoefficientsReport.Within(
                criterion.id(),
                kind,
                matrix.units().size(),
                TableAgreement.coefficientsOf(ratings, matrix, numbers, TableScale.INTERVAL).stream()
                        .map(c ->
                                new CoefficientsReport.CoefficientFigure(c.name(), Figure.of(c.value(), c.interval())))
                        .toList());
    }
}
