package org.mossbank.core.decision;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import java.util.List;
import java.util.OptionalDouble;
import org.mossbank.core.comparison.Difference;
import org.mossbank.core.comparison.Standing;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.comparison.WithBest;
import org.mossbank.core.decision.DecisionRule.FloorOn;
import org.mossbank.core.decision.DecisionRule.Strictness;
import org.mossbank.core.decision.DecisionRule.TieBreak;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class DecisionTest {
    private static final double FLOOR = 0.67;
    private static final DecisionRule RULE = rule(FloorOn.ESTIMATE, TieBreak.NONE, Strictness.LENIENT);
    private static final List<Evidence.Contender> ALL = contenders(3, 1, 2);

    private static DecisionRule rule(FloorOn floorOn, TieBreak tieBreak, Strictness strictness) {
        return new DecisionRule(floorOn, 5, 3, tieBreak, strictness);
    }

    private static List<Evidence.Contender> contenders(double heron, double plover, double knot) {
        return List.of(
                new Evidence.Contender("heron", OptionalDouble.of(heron)),
                new Evidence.Contender("plover", OptionalDouble.of(plover)),
                new Evidence.Contender("knot", OptionalDouble.of(knot)));
    }

    private static Evidence.CriterionAgreement agreement(String criterion, double value) {
        return new Evidence.CriterionAgreement(
                criterion, Estimate.of(value), new Interval.Bounds(value - 0.1, value + 0.1, 0.95), FLOOR);
    }

    private static Standing standing(String name, double score) {
        return new Standing(
                name,
                Estimate.of(score),
                new Interval.Bounds(score - 4, score + 4, 0.95),
                Estimate.of(score),
                10,
                Estimate.of(0.5));
    }

    /** With so many degrees of freedom that t is normal, and a p value that stands for what Holm's steps left. */
    private static Difference difference(String higher, String lower, double estimate, double error, double p) {
        Interval interval = new Interval.Bounds(estimate - 1.97 * error, estimate + 1.97 * error, 0.95);
        return new Difference(
                higher,
                lower,
                Estimate.of(estimate),
                Estimate.of(error),
                400,
                interval,
                interval,
                Estimate.of(p),
                interval);
    }

    private static Evidence evidence(double alpha, int raters, Difference... differences) {
        return evidence(Evidence.State.CLEAR, ALL, alpha, raters, differences);
    }

    private static Evidence evidence(
            Evidence.State state,
            List<Evidence.Contender> contenders,
            double alpha,
            int raters,
            Difference... differences) {
        return new Evidence(
                state,
                List.of(new Evidence.AnswerRaters("x", raters), new Evidence.AnswerRaters("y", 4)),
                List.of(agreement("correctness", alpha), agreement("idiom", 0.9)),
                new Standings(
                        List.of(standing("heron", 70), standing("plover", 60), standing("knot", 50)),
                        List.of(differences)),
                contenders);
    }

    private static final Difference CLEAR = difference("heron", "plover", 10, 4, 0.02);
    private static final Difference CLEARER = difference("heron", "knot", 20, 5, 0.001);
    private static final Difference REST = difference("plover", "knot", 10, 6, 0.1);

    @Test
    public void recommendsWhoIsAheadOfAllBeyondDoubt() {
        Decision decision = Decision.of(RULE, evidence(0.7, 3, CLEAR, CLEARER, REST));
        assertThat(decision.outcome()).isEqualTo(Outcome.RECOMMENDED);
        assertThat(decision.leader()).contains("heron");
        assertThat(decision.isBest("heron")).isTrue();
        assertThat(decision.isBest("plover")).isFalse();
        assertThat(decision.findings())
                .containsExactly(new Finding.ClearlyAhead(CLEAR), new Finding.ClearlyAhead(CLEARER));
    }

    /** 4 points, 1.97 standard errors of 0.4: at most 4.8, and the margin is 5. */
    @Test
    public void aheadButByLessThanMattersIsTold() {
        Difference little = difference("heron", "plover", 4, 0.4, 0.001);
        Decision decision = Decision.of(RULE, evidence(0.7, 3, little, CLEARER, REST));
        assertThat(decision.outcome()).isEqualTo(Outcome.RECOMMENDED);
        assertThat(decision.findings().get(0)).isEqualTo(new Finding.BelowMargin(little, 5));
    }

    /** Just the margin is not less than it. */
    @Test
    public void anIntervalThatReachesTheMarginIsNotLess() {
        Difference enough = new Difference(
                "heron",
                "plover",
                Estimate.of(4),
                Estimate.of(0.5),
                400,
                new Interval.Bounds(3, 5, 0.95),
                new Interval.Bounds(3, 5, 0.95),
                Estimate.of(0.001),
                new Interval.Bounds(3, 5, 0.95));
        assertThat(Decision.of(RULE, evidence(0.7, 3, enough, CLEARER, REST))
                        .findings()
                        .get(0))
                .isEqualTo(new Finding.ClearlyAhead(enough));
    }

    /** 10 points with a standard error of 6: 10 - 1.97 × 6 is below 0; 10 - 2.0 × 6 is above -5, so heron is safe. */
    @Test
    public void whoIsNotShownTheBestMayStillBeSafe() {
        Decision decision =
                Decision.of(RULE, evidence(0.7, 3, difference("heron", "plover", 10, 6, 0.1), CLEARER, REST));
        assertThat(decision.outcome()).isEqualTo(Outcome.SAFE_CHOICES);
        assertThat(decision.leader()).contains("heron");
        assertThat(decision.findings()).hasSize(3);
        assertThat(decision.findings().get(0)).isInstanceOfSatisfying(Finding.Safe.class, safe -> {
            assertThat(safe.candidate()).isEqualTo("heron");
            // the critical value of two differences: between 1.65 and 1.97
            assertThat(safe.shortfall()).isBetween(6 * 1.65 - 10, 6 * 1.97 - 10);
        });
        assertThat(decision.findings().get(1)).isInstanceOf(Finding.NotSafe.class);
        assertThat(decision.findings().get(2)).isEqualTo(new Finding.Out("knot", "heron"));
    }

    @Test
    public void undecidedBetweenThoseThatAreNotOut() {
        Decision decision = Decision.of(
                RULE,
                evidence(
                        0.7,
                        3,
                        difference("heron", "plover", 3, 9, 0.8),
                        CLEARER,
                        difference("plover", "knot", 17, 9, 0.1)));
        assertThat(decision.outcome()).isEqualTo(Outcome.UNDECIDED);
        assertThat(decision.leader()).contains("heron");
        assertThat(decision.findings())
                .extracting(f -> f instanceof Finding.NotSafe n ? n.candidate() : f.toString())
                .containsExactly("heron", "plover", new Finding.Out("knot", "heron").toString());
    }

    /** Each is out by another one: who is left is the best, though it is not clear of all by itself. */
    @Test
    public void theOnlyOneThatIsNotOutIsTheBest() {
        Decision decision = Decision.of(
                RULE,
                evidence(
                        0.7,
                        3,
                        difference("heron", "plover", 10, 4, 0.02),
                        difference("heron", "knot", 20, 12, 0.1),
                        difference("plover", "knot", 10, 2, 0.001)));
        assertThat(decision.outcome()).isEqualTo(Outcome.RECOMMENDED);
        assertThat(decision.isBest("heron")).isTrue();
    }

    @Test
    public void equalsAreAllSafe() {
        Decision decision = Decision.of(RULE, evidence(0.7, 3, ALIKE));
        assertThat(decision.outcome()).isEqualTo(Outcome.SAFE_CHOICES);
        assertThat(decision.leader()).isEmpty();
        assertThat(decision.findings()).hasSize(3).allMatch(f -> f instanceof Finding.Safe);
    }

    /** A shortfall of just the margin is as much as it. */
    @Test
    public void safeIsLessThanTheMargin() {
        WithBest field =
                WithBest.of(List.of("heron", "plover"), List.of(difference("heron", "plover", 0, 1, 0.9)), 0.05);
        double shortfall = field.candidates().get(0).shortfall().orElseThrow();
        assertThat(field.candidates().get(0).isSafe(shortfall)).isFalse();
        assertThat(field.candidates().get(0).isSafe(shortfall + 1e-9)).isTrue();
    }

    @Test
    public void withheldBelowTheFloorNamingTheCriterionAndByHowMuch() {
        Decision decision = Decision.of(RULE, evidence(0.5, 3, CLEAR, CLEARER, REST));
        assertThat(decision.outcome()).isEqualTo(Outcome.WITHHELD);
        assertThat(decision.leader()).isEmpty();
        assertThat(decision.findings()).singleElement().isInstanceOfSatisfying(Finding.AgreementBelowFloor.class, f -> {
            assertThat(f.criterion()).isEqualTo("correctness");
            assertThat(f.shortfall()).isCloseTo(0.17, org.assertj.core.api.Assertions.within(1e-12));
        });
    }

    @Test
    public void everyGapIsNamed() {
        Evidence evidence = new Evidence(
                Evidence.State.CLEAR,
                List.of(new Evidence.AnswerRaters("x", 2), new Evidence.AnswerRaters("y", 0)),
                List.of(new Evidence.CriterionAgreement(
                        "idiom",
                        Estimate.undefined(Reason.ONE_LEVEL_ONLY),
                        Interval.undefined(Reason.ONE_LEVEL_ONLY),
                        FLOOR)),
                new Standings(List.of(), List.of()),
                ALL);
        assertThat(Decision.of(RULE, evidence).findings())
                .containsExactly(
                        new Finding.TooFewRaters(2, 2, 0, 3),
                        new Finding.AgreementUndefined("idiom", Reason.ONE_LEVEL_ONLY),
                        new Finding.TooFewCandidates(0));
    }

    @Test
    public void noAnswersAtAllIsTooFewRatersToo() {
        Evidence evidence = new Evidence(
                Evidence.State.CLEAR, List.of(), List.of(), new Standings(List.of(), List.of()), List.of());
        assertThat(Decision.of(RULE, evidence).outcome()).isEqualTo(Outcome.WITHHELD);
    }

    private static final Difference[] ALIKE = {
        difference("heron", "plover", 1, 1.5, 0.9),
        difference("heron", "knot", 2, 1.5, 0.6),
        difference("plover", "knot", 1, 1.5, 0.9)
    };

    @Test
    public void theLowerLimitMustReachTheFloorWhenTheRuleSaysSo() {
        DecisionRule strict = rule(FloorOn.LOWER_LIMIT, TieBreak.NONE, Strictness.LENIENT);
        Evidence almost = evidence(0.7, 3, CLEAR, CLEARER, REST);
        assertThat(Decision.of(strict, almost).findings())
                .singleElement()
                .isInstanceOfSatisfying(Finding.AgreementBelowFloor.class, f -> {
                    assertThat(f.on()).isEqualTo(FloorOn.LOWER_LIMIT);
                    assertThat(f.value()).isCloseTo(0.6, org.assertj.core.api.Assertions.within(1e-12));
                });
        assertThat(Decision.of(strict, evidence(0.78, 3, CLEAR, CLEARER, REST)).outcome())
                .isEqualTo(Outcome.RECOMMENDED);
    }

    /** Of 0.6 ± 0.1 the upper limit reaches 0.67, the lower does not: it passes, and is told. */
    @Test
    public void theUpperLimitWithholdsOnlyBeyondDoubt() {
        DecisionRule lenient = rule(FloorOn.UPPER_LIMIT, TieBreak.NONE, Strictness.LENIENT);
        Decision passed = Decision.of(lenient, evidence(0.6, 3, CLEAR, CLEARER, REST));
        assertThat(passed.outcome()).isEqualTo(Outcome.RECOMMENDED);
        assertThat(passed.findings().get(2)).isEqualTo(new Finding.AgreementUncertain("correctness", 0.5, 0.7, FLOOR));
        assertThat(Decision.of(lenient, evidence(0.56, 3, CLEAR, CLEARER, REST)).findings())
                .singleElement()
                .isInstanceOf(Finding.AgreementBelowFloor.class);
        assertThat(Decision.of(lenient, evidence(0.9, 3, CLEAR, CLEARER, REST)).findings())
                .hasSize(2);
    }

    @Test
    public void agreementThatMayBeChanceWithholdsHoweverWideItIs() {
        DecisionRule lenient = rule(FloorOn.UPPER_LIMIT, TieBreak.NONE, Strictness.LENIENT);
        Evidence wide = withAgreement(Estimate.of(0.5), new Interval.Bounds(0, 0.9, 0.95));
        assertThat(Decision.of(lenient, wide).findings())
                .containsExactly(new Finding.AgreementMayBeChance("correctness", 0));
        Evidence hardly = withAgreement(Estimate.of(0.5), new Interval.Bounds(0.01, 0.9, 0.95));
        assertThat(Decision.of(lenient, hardly).outcome()).isEqualTo(Outcome.RECOMMENDED);
    }

    /** Where all grades are alike there is no interval, and nothing to doubt. */
    @Test
    public void fullAgreementNeedsNoInterval() {
        Evidence alike = withAgreement(Estimate.of(1), Interval.undefined(Reason.ALL_ALIKE));
        for (FloorOn floorOn : FloorOn.values()) {
            assertThat(Decision.of(rule(floorOn, TieBreak.NONE, Strictness.LENIENT), alike)
                            .outcome())
                    .isEqualTo(Outcome.RECOMMENDED);
        }
    }

    private static Evidence withAgreement(Estimate value, Interval interval) {
        return new Evidence(
                Evidence.State.CLEAR,
                List.of(new Evidence.AnswerRaters("x", 3)),
                List.of(new Evidence.CriterionAgreement("correctness", value, interval, FLOOR)),
                new Standings(
                        List.of(standing("heron", 70), standing("plover", 60), standing("knot", 50)),
                        List.of(CLEAR, CLEARER, REST)),
                ALL);
    }

    @Test
    public void anOpenBriefWithholdsWhateverTheFiguresSay() {
        Evidence open = evidence(new Evidence.State(false, 0, 0), ALL, 0.8, 3, CLEAR, CLEARER, REST);
        assertThat(Decision.of(RULE, open).findings()).containsExactly(new Finding.BriefOpen());
    }

    @Test
    public void giveAwaysAndSplitsWithholdOnlyWhenTheRuleIsStrict() {
        Evidence flawed = evidence(new Evidence.State(true, 2, 5), ALL, 0.8, 3, CLEAR, CLEARER, REST);
        assertThat(Decision.of(RULE, flawed).outcome()).isEqualTo(Outcome.RECOMMENDED);
        DecisionRule strict = rule(FloorOn.ESTIMATE, TieBreak.NONE, new Strictness(true, true));
        assertThat(Decision.of(strict, flawed).findings())
                .containsExactly(new Finding.MaskingBroken(2), new Finding.SplitsOpen(5));
    }

    @Test
    public void theTieBreakPrefersTheCheapestOfSafeChoices() {
        DecisionRule byCost = rule(FloorOn.ESTIMATE, TieBreak.COST, Strictness.LENIENT);
        Decision decision = Decision.of(byCost, evidence(0.7, 3, ALIKE));
        assertThat(decision.outcome()).isEqualTo(Outcome.SAFE_CHOICES);
        assertThat(decision.leader()).contains("plover");
        assertThat(decision.findings().get(0)).isEqualTo(new Finding.TieBroken("plover", TieBreak.COST, 1, 2));
    }

    @DataProvider
    public static Object[][] tiesThatStand() {
        return new Object[][] {
            {"two share the least", contenders(1, 1, 2)},
            {
                "one is not known",
                List.of(
                        new Evidence.Contender("heron", OptionalDouble.of(1)),
                        new Evidence.Contender("plover", OptionalDouble.empty()),
                        new Evidence.Contender("knot", OptionalDouble.of(3)))
            },
        };
    }

    @Test(dataProvider = "tiesThatStand")
    public void aTieStandsOtherwise(String name, List<Evidence.Contender> contenders) {
        DecisionRule byCost = rule(FloorOn.ESTIMATE, TieBreak.COST, Strictness.LENIENT);
        Decision decision = Decision.of(byCost, evidence(Evidence.State.CLEAR, contenders, 0.7, 3, ALIKE));
        assertThat(decision.leader()).isEmpty();
        assertThat(decision.findings().get(0)).isEqualTo(new Finding.TieStands(TieBreak.COST));
    }

    @Test
    public void whoIsRuledOutOrABaselineNeitherWinsNorStandsInTheWay() {
        List<Evidence.Contender> withoutHeron = ALL.subList(1, 3);
        Difference clear = difference("plover", "knot", 10, 4, 0.02);
        Decision decision =
                Decision.of(RULE, evidence(Evidence.State.CLEAR, withoutHeron, 0.7, 3, CLEAR, CLEARER, clear));
        assertThat(decision.outcome()).isEqualTo(Outcome.RECOMMENDED);
        assertThat(decision.leader()).contains("plover");
        assertThat(decision.findings()).containsExactly(new Finding.ClearlyAhead(clear));
    }

    @Test
    public void oneContenderAloneIsNoComparison() {
        Decision decision =
                Decision.of(RULE, evidence(Evidence.State.CLEAR, ALL.subList(0, 1), 0.7, 3, CLEAR, CLEARER, REST));
        assertThat(decision.findings()).containsExactly(new Finding.TooFewCandidates(1));
    }

    @Test
    public void refusesRulesOutOfRange() {
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new DecisionRule(FloorOn.ESTIMATE, -1, 3, TieBreak.NONE, Strictness.LENIENT));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new DecisionRule(FloorOn.ESTIMATE, Double.NaN, 3, TieBreak.NONE, Strictness.LENIENT));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new DecisionRule(FloorOn.ESTIMATE, 5, 0, TieBreak.NONE, Strictness.LENIENT));
        assertThatIllegalArgumentException()
                .isThrownBy(() -> new Evidence.CriterionAgreement(
                        "idiom", Estimate.of(0.5), Interval.undefined(Reason.NO_DATA), 1.1));
        assertThatIllegalArgumentException().isThrownBy(() -> new Evidence.State(true, -1, 0));
    }

    private static final DecisionRule BY_KIND = RULE.withAllowance(Allowance.WITH_KINDS);

    private static Evidence withKinds(Difference[] first, Difference[] second) {
        // Over all kinds nothing can be told.
        Difference wide = difference("heron", "plover", 1, 9, 0.9);
        Difference wider = difference("heron", "knot", 2, 9, 0.9);
        Difference widest = difference("plover", "knot", 1, 9, 0.9);
        Evidence whole = evidence(0.7, 3, wide, wider, widest);
        return new Evidence(
                whole.state(),
                whole.answers(),
                whole.agreement(),
                whole.standings(),
                whole.contenders(),
                List.of(
                        new Evidence.WithinKind("debugging", within(first)),
                        new Evidence.WithinKind("review", within(second))));
    }

    private static Standings within(Difference... differences) {
        return new Standings(
                List.of(standing("heron", 70), standing("plover", 60), standing("knot", 50)), List.of(differences));
    }

    private static final Difference[] FAR = {
        difference("heron", "plover", 30, 4, 0.0001),
        difference("heron", "knot", 40, 4, 0.0001),
        difference("plover", "knot", 10, 6, 0.3)
    };
    private static final Difference[] OPEN = {
        difference("heron", "plover", 1, 9, 0.9),
        difference("heron", "knot", 2, 9, 0.9),
        difference("plover", "knot", 1, 9, 0.9)
    };

    @Test
    public void kindsAreToldApartWhereNothingHoldsOverAll() {
        Decision decision = Decision.of(BY_KIND, withKinds(FAR, OPEN));
        assertThat(decision.outcome()).isEqualTo(Outcome.BY_KIND);
        assertThat(decision.leader()).isEmpty();
        assertThat(decision.findings().get(0)).isEqualTo(new Finding.BestOfKind("debugging", "heron"));
        assertThat(decision.findings().get(1)).isEqualTo(new Finding.KindsOpen(List.of("review")));
    }

    @Test
    public void kindsAreNotToldApartUnlessTheRuleDividesItsAllowance() {
        assertThat(Decision.of(RULE, withKinds(FAR, OPEN)).outcome()).isEqualTo(Outcome.UNDECIDED);
        assertThat(Decision.of(BY_KIND, withKinds(OPEN, OPEN)).outcome()).isEqualTo(Outcome.UNDECIDED);
    }

    /** 30 points, 13 off: t is 2.3, which is p 0.02: enough over all kinds, and too little for a half of 0.01. */
    @Test
    public void aKindHasItsOwnShareOfTheAllowance() {
        Difference[] some = {
            difference("heron", "plover", 30, 13, 0.02), difference("heron", "knot", 30, 13, 0.02), OPEN[2]
        };
        assertThat(Decision.of(BY_KIND, withKinds(some, OPEN)).outcome()).isEqualTo(Outcome.UNDECIDED);
        assertThat(Decision.of(RULE, evidence(0.7, 3, some)).outcome()).isEqualTo(Outcome.RECOMMENDED);
    }

    /** 4.9 below at worst with one error of 1 and the margin 5: safe within a kind. */
    @Test
    public void aSafeChoiceMayBeOneOfAKind() {
        Difference[] alike = {
            difference("heron", "plover", 0.1, 0.5, 0.9),
            difference("heron", "knot", 0.2, 0.5, 0.9),
            difference("plover", "knot", 0.1, 0.5, 0.9)
        };
        Decision decision = Decision.of(BY_KIND, withKinds(OPEN, alike));
        assertThat(decision.outcome()).isEqualTo(Outcome.BY_KIND);
        assertThat(decision.findings().subList(0, 3))
                .allSatisfy(f -> assertThat(((Finding.SafeInKind) f).kind()).isEqualTo("review"));
    }

    /** A look that may spend a tenth asks for more. */
    @Test
    public void anEarlyLookAsksForMore() {
        Difference[] some = {
            difference("heron", "plover", 30, 13, 0.02), difference("heron", "knot", 30, 13, 0.02), OPEN[2]
        };
        DecisionRule early = RULE.withAllowance(Allowance.OVERALL.at(List.of(0.5)));
        assertThat(Decision.of(early, evidence(0.7, 3, some)).outcome()).isEqualTo(Outcome.UNDECIDED);
        assertThat(Decision.of(early, evidence(0.7, 3, FAR)).outcome()).isEqualTo(Outcome.RECOMMENDED);
    }
}
