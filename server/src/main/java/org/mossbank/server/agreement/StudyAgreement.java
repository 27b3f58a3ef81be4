package org.mossbank.server.agreement;

import java.util.List;
import java.util.OptionalDouble;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.server.ids.CriterionId;

/**
 * How well a study's raters agree.
 *
 * @param report   as the lead reads it
 * @param decisive what the rule looks at, for each criterion
 */
public record StudyAgreement(AgreementReport report, List<Decisive> decisive) {

    /**
     * The coefficient that the rule looks at, on one criterion.
     *
     * @param criterion its name
     * @param weight    of the criterion
     * @param floor     that the coefficient is to reach
     */
    public record Decisive(
            CriterionId criterionId, String criterion, double weight, double floor, Estimate value, Interval interval) {
        /** How far it lies above the floor; nothing where it cannot be computed. */
        OptionalDouble aboveFloor() {
            return value instanceof Estimate.Undefined
                    ? OptionalDouble.empty()
                    : OptionalDouble.of(value.value().orElseThrow() - floor);
        }
    }
}
