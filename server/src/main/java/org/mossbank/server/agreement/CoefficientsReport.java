package org.mossbank.server.agreement;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.table.TableAgreement;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.shared.Figure;

/** Every coefficient of agreement, by criterion over all kinds and within each. */
public record CoefficientsReport(List<Within> within) {
    /** @param kindId absent over all kinds */
    public record Within(
            CriterionId criterionId, @Nullable KindId kindId, int answers, List<CoefficientFigure> coefficients) {}

    /** One coefficient; its interval, where it has one of its own, takes answers as independent. */
    public record CoefficientFigure(TableAgreement.Name name, Figure figure) {}
}
