package org.mossbank.core.decision;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Proxy;
import java.util.Arrays;
import java.util.List;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.Test;

public class FindingTest {
    private static final Difference DIFFERENCE = new Difference(
            "a",
            "b",
            Estimate.of(1),
            Estimate.of(1),
            10,
            Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE),
            Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE),
            Estimate.of(1),
            Interval.undefined(Reason.TOO_FEW_TO_RESAMPLE));

    private static final List<Finding> EACH = List.of(
            new Finding.BriefOpen(),
            new Finding.TooFewRaters(1, 2, 1, 2),
            new Finding.TooFewCandidates(1),
            new Finding.AgreementBelowFloor("c", DecisionRule.FloorOn.LOWER_LIMIT, 0.4, 0.5, 0.1),
            new Finding.AgreementMayBeChance("c", -0.1),
            new Finding.AgreementUncertain("c", 0.4, 0.7, 0.6),
            new Finding.AgreementUndefined("c", Reason.TOO_FEW_TO_RESAMPLE),
            new Finding.MaskingBroken(1),
            new Finding.SplitsOpen(1),
            new Finding.StandingsUndefined(Reason.TOO_FEW_TO_RESAMPLE),
            new Finding.ClearlyAhead(DIFFERENCE),
            new Finding.BelowMargin(DIFFERENCE, 5),
            new Finding.Safe("a", 3, 5),
            new Finding.NotSafe("a", 7, 5),
            new Finding.Out("a", "b"),
            new Finding.BestOfKind("k", "a"),
            new Finding.SafeInKind("k", "a", 3, 5),
            new Finding.KindsOpen(List.of("k")),
            new Finding.TieBroken("a", DecisionRule.TieBreak.COST, 1, 4),
            new Finding.TieStands(DecisionRule.TieBreak.COST));

    /** Says which of its methods was called, and with what. */
    @SuppressWarnings("unchecked")
    private static Finding.Visitor<List<Object>> telling() {
        return (Finding.Visitor<List<Object>>) Proxy.newProxyInstance(
                FindingTest.class.getClassLoader(),
                new Class<?>[] {Finding.Visitor.class},
                (proxy, method, given) -> List.of(method.getName(), given[0]));
    }

    @Test
    public void eachSortIsVisitedAsWhatItIs() {
        for (Finding finding : EACH) {
            String name = finding.getClass().getSimpleName();
            assertThat(finding.accept(telling()))
                    .containsExactly(Character.toLowerCase(name.charAt(0)) + name.substring(1), finding);
        }
    }

    @Test
    public void noSortIsLeftOut() {
        assertThat(EACH.stream().map(Object::getClass).collect(Collectors.toSet()))
                .isEqualTo(Arrays.stream(Finding.class.getPermittedSubclasses()).collect(Collectors.toSet()));
    }
}
