package org.mossbank.server.table;

import java.util.List;
import org.mossbank.core.table.TableAgreement;
import org.mossbank.server.shared.Figure;

/**
 * How far raters agree in a table.
 *
 * @param units  with a value
 * @param values given
 * @param levels the different values, ascending
 * @param splits units whose values lie two levels or more apart, widest first; the count says how many there are
 */
record TableAgreementView(
        int units,
        int values,
        List<String> raters,
        List<String> levels,
        List<CoefficientView> coefficients,
        List<PairView> pairs,
        List<SeverityView> severities,
        List<TableSplitView> splits,
        int splitCount) {

    record CoefficientView(TableAgreement.Name name, Figure figure) {}

    /** @param units that both raters have */
    record PairView(String first, String second, int units, Figure kappa, Figure linear, Figure quadratic) {}

    /** @param severity levels below the others on the same units */
    record SeverityView(String rater, Figure severity, int values, double shareAtEnds) {}

    /** @param distance levels between the lowest and the highest value */
    record TableSplitView(String unit, int distance, List<GivenView> given) {}

    record GivenView(String rater, String value) {}

    static TableAgreementView of(TableAgreement found) {
        return new TableAgreementView(
                found.units(),
                found.values(),
                found.raters(),
                found.levels(),
                found.coefficients().stream()
                        .map(c -> new CoefficientView(c.name(), Figure.of(c.value(), c.interval())))
                        .toList(),
                found.pairs().stream()
                        .map(p -> new PairView(
                                p.first(),
                                p.second(),
                                p.units(),
                                Figure.of(p.kappa()),
                                Figure.of(p.linear()),
                                Figure.of(p.quadratic())))
                        .toList(),
                found.severities().stream()
                        .map(s -> new SeverityView(
                                s.rater(), Figure.of(s.severity(), s.interval()), s.grades(), s.shareAtEnds()))
                        .toList(),
                found.splits().stream()
                        .map(s -> new TableSplitView(
                                s.unit(),
                                s.distance(),
                                s.ratings().stream()
                                        .map(r -> new GivenView(
                                                r.rater(), found.levels().get(r.category())))
                                        .toList()))
                        .toList(),
                found.splitCount());
    }
}
