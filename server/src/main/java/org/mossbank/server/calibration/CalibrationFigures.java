package org.mossbank.server.calibration;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.severity.Distance;
import org.mossbank.server.agreement.Agreements;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.study.RuleTerms;

/**
 * What a calibration comes to. The floor is looked at by the value itself: a handful of prompts shows whether raters read the ruler
 * alike, and no interval from so few would ever reach it.
 *
 * @param rule the study's: which coefficient counts, and its floor
 */
record CalibrationFigures(CalibrationBasis basis, RuleTerms rule) {

    List<CalibrationViews.AgreementBefore> agreement() {
        return basis.criteria().stream()
                .filter(c -> basis.prompts().stream()
                        .anyMatch(p -> c.appliesTo(p.kind().id())))
                .map(this::agreement)
                .toList();
    }

    private CalibrationViews.AgreementBefore agreement(CriterionView criterion) {
        double floor = criterion.floor() == null ? rule.agreementFloor() : criterion.floor();
        Figure before = figure(criterion, basis.independent());
        Double value = before.value();
        return new CalibrationViews.AgreementBefore(
                criterion.key(),
                criterion.name(),
                floor,
                before,
                criterion.weight() == 0 || value == null ? null : (Boolean) (value >= floor),
                basis.again().isEmpty() ? null : figure(criterion, basis.again()));
    }

    private Figure figure(CriterionView criterion, List<Grading.SheetRecord> sheets) {
        List<Rating> ratings = new ArrayList<>();
        basis.marks(sheets)
                .forEach((cell, marks) -> marks.forEach((rater, mark) -> {
                    Integer level = mark.level();
                    if (cell.criterion().equals(criterion.key()) && level != null) {
                        ratings.add(new Rating(cell.answer().toString(), rater.toString(), level));
                    }
                }));
        return Agreements.decisive(RatingMatrix.ofLevels(ratings, criterion.highestLevel()), rule.coefficient());
    }

    /** What is short of the floor, in sentences; empty if nothing is. */
    List<String> shortOfFloor() {
        List<String> unmet = new ArrayList<>();
        for (CalibrationViews.AgreementBefore one : agreement()) {
            if (basis.criterion(one.criterion()).orElseThrow().weight() == 0 || Boolean.TRUE.equals(one.reached())) {
                continue;
            }
            Double value = one.before().value();
            unmet.add(
                    value == null
                            ? "Agreement on %s cannot be computed: %s."
                                    .formatted(
                                            one.name().toLowerCase(Locale.ROOT),
                                            one.before().undefinedReason())
                            : "Agreement on %s is %.2f before the talk; the floor is %.2f."
                                    .formatted(one.name().toLowerCase(Locale.ROOT), value, one.floor()));
        }
        return unmet;
    }

    /** How far a rater lies from the others and from the reference. */
    CalibrationViews.DistanceOf distance(AccountId rater, String name, boolean own) {
        List<Distance.Placed> before = placed(basis.first());
        List<Distance.Placed> after = placed(basis.again());
        Map<String, Integer> reference = reference();
        String id = rater.toString();
        return new CalibrationViews.DistanceOf(
                name,
                own,
                new CalibrationViews.DistancePair(
                        view(Distance.fromOthers(before, id)), view(Distance.fromOthers(after, id))),
                new CalibrationViews.DistancePair(
                        view(Distance.fromReference(before, id, reference)),
                        view(Distance.fromReference(after, id, reference))));
    }

    private static CalibrationViews.@Nullable DistanceView view(Optional<Distance> distance) {
        return distance.map(d -> new CalibrationViews.DistanceView(d.apart(), d.above(), d.grades()))
                .orElse(null);
    }

    /** What people who know said beforehand; where they did not, what was settled on. */
    private Map<String, Integer> reference() {
        Map<String, Integer> reference = new HashMap<>();
        basis.levels(Calibrations.Source.SETTLED).forEach((cell, level) -> reference.put(unit(cell), level));
        basis.levels(Calibrations.Source.REFERENCE).forEach((cell, level) -> reference.put(unit(cell), level));
        return reference;
    }

    private static String unit(CalibrationBasis.Cell cell) {
        return cell.answer() + "/" + cell.criterion();
    }

    private List<Distance.Placed> placed(List<Grading.SheetRecord> sheets) {
        Map<String, Integer> highest = new HashMap<>();
        basis.criteria().forEach(c -> highest.put(c.key(), c.highestLevel()));
        List<Distance.Placed> placed = new ArrayList<>();
        basis.marks(sheets)
                .forEach((cell, marks) -> marks.forEach((rater, mark) -> {
                    Integer level = mark.level();
                    if (level != null) {
                        placed.add(new Distance.Placed(
                                unit(cell), rater.toString(), level, Require.known(highest, cell.criterion())));
                    }
                }));
        return placed;
    }
}
