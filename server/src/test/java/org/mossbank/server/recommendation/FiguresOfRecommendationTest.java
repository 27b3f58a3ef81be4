package org.mossbank.server.recommendation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.mossbank.core.decision.DecisionRule.TieBreak;
import org.mossbank.core.decision.Outcome;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Reason;
import org.mossbank.server.PlainStudy;
import org.mossbank.server.agreement.AgreementReport;
import org.mossbank.server.agreement.StudyAgreement;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.grading.SentPlace;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.reconciliation.Reconciliations;
import org.mossbank.server.study.RuleTerms;
import org.testng.annotations.Test;

/** What decides, from grades that can be counted by hand, without a server. */
public class FiguresOfRecommendationTest {
    private static final double TINY = 1e-9;
    private static final RuleTerms RULE = PlainStudy.rule(0.5, 5, 2, TieBreak.NONE);

    static RecommendationData data(PlainStudy study, RuleTerms rule) {
        return data(study, rule, List.of());
    }

    private static RecommendationData data(PlainStudy study, RuleTerms rule, List<Reconciliations.Settled> settled) {
        return new RecommendationData(
                study.study(rule),
                study.candidates,
                study.criteria,
                study.promptsById(),
                study.answersById(),
                study.ratersById(),
                study.grades,
                study.ratersByAnswer(),
                List.of(),
                List.of(),
                new RecommendationData.Looking(List.of(), study.prompts.size()),
                new RecommendationData.RoundSeen(true, 0, 0, settled));
    }

    /** Agreement as it is told to the rule, on each criterion. */
    private static StudyAgreement agreement(PlainStudy study, double value) {
        List<StudyAgreement.Decisive> decisive = study.criteria.stream()
                .map(c -> new StudyAgreement.Decisive(
                        c.id(),
                        c.name(),
                        c.weight(),
                        0.5,
                        Estimate.of(value),
                        new Interval.Bounds(value - 0.1, Math.min(1, value + 0.1), 0.95)))
                .toList();
        AgreementReport report = new AgreementReport(
                0,
                4,
                6,
                RULE.coefficient(),
                0,
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                List.of(),
                3,
                List.of());
        return new StudyAgreement(report, decisive);
    }

    private static RecommendationReport report(PlainStudy study, RuleTerms rule) {
        return RecommendationComputation.compute(9, data(study, rule), agreement(study, 0.9), 2);
    }

    /** The first rater gives Teasel's first answer the highest level on correctness, the second the lowest but one. */
    private static PlainStudy parted() {
        return new PlainStudy(2, 8, 2)
                .graded(0, (p, c, r) -> c == 0 ? 3 : p == 0 && r == 0 ? 4 : 1)
                .graded(1, (p, c, r) -> c == 1 ? 1 : 3);
    }

    private static RecommendationReport settledAt(double level, RuleTerms rule) {
        PlainStudy study = parted();
        List<Reconciliations.Settled> settled = List.of(new Reconciliations.Settled(
                study.answer(0, 1).id(), study.criteria.get(0).id(), level));
        return RecommendationComputation.compute(9, data(study, rule, settled), agreement(study, 0.9), 2);
    }

    private static double teasel(RecommendationReport report) {
        return report.settled().standings().get(1).adjusted().value();
    }

    @Test
    public void settledGradesStandBesideWhatRestsOnTheOriginals() {
        RecommendationReport report = settledAt(3.5, RULE);
        // Correctness of Teasel: (15 · 1 + 4) / 16 as it was given, (14 · 1 + 2 · 3.5) / 16 as it was settled; idiom 1.
        assertThat(report.overall().get(1).plain().value()).isCloseTo((2 * 19 / 16.0 + 1) / 12 * 100, within(TINY));
        assertThat(teasel(report)).isCloseTo((2 * 21 / 16.0 + 1) / 12 * 100, within(TINY));
        assertThat(report.settled().standings().get(0).candidateId())
                .isEqualTo(report.overall().get(0).candidateId());
        assertThat(report.settled().splits()).isEqualTo(1);
        assertThat(report.settled().open()).isZero();
        assertThat(report.settled().otherwise()).as("the same outcome").isNull();
        RecommendationReport without = report(parted(), RULE);
        assertThat(without.settled().splits()).isZero();
        assertThat(without.settled().open()).isEqualTo(1);
        assertThat(without.settled().standings()).isEmpty();
        assertThat(without.overall()).isEqualTo(report.overall());
    }

    @Test
    public void aRuleStrictAboutSplitsAsksForSettledGrades() {
        RuleTerms strict = with(RULE, true, null);
        assertThat(report(parted(), strict).outcome()).isEqualTo(Outcome.WITHHELD);
        assertThat(report(parted(), strict).findings())
                .extracting(RecommendationReport.FindingView::type)
                .contains("splits-open");
        assertThat(settledAt(1, strict).outcome()).isEqualTo(Outcome.RECOMMENDED);
        assertThat(report(parted(), RULE).outcome()).isEqualTo(Outcome.RECOMMENDED);
    }

    /** The gate caps at level 1; between 1 and 2 it does not. */
    @Test
    public void aSettledGradeAboveTheGateIsNotCapped() {
        RuleTerms gated = with(RULE, false, new RuleTerms.GateTerms("correctness", 1, 10));
        // All others of Teasel are capped at 10 points.
        assertThat(teasel(settledAt(1, gated))).isCloseTo(10, within(TINY));
        // (2 · 1.5 + 1) / 12 of 100 points, from both raters, in one of eight prompts.
        assertThat(teasel(settledAt(1.5, gated))).isCloseTo((7 * 10 + 100 * 4 / 12.0) / 8, within(TINY));
    }

    private static RuleTerms with(RuleTerms rule, boolean strictOnSplits, RuleTerms.GateTerms gate) {
        return new RuleTerms(
                rule.coefficient(),
                rule.agreementFloor(),
                rule.floorOn(),
                rule.margin(),
                rule.minimumRaters(),
                rule.tieBreak(),
                rule.strictOnMasking(),
                strictOnSplits,
                rule.byKind(),
                rule.looks(),
                rule.failedAnswers(),
                gate);
    }

    /** Osier is two levels of four above Teasel on every prompt, and Sedge is like Osier; raters differ a little by prompt. */
    private static PlainStudy clear(int candidates) {
        return new PlainStudy(candidates, 8, 2)
                .graded(0, (p, c, r) -> (c == 1 ? 1 : 3) + (p % 4 == r && c == 0 ? 1 : 0))
                .graded(1, (p, c, r) -> c == 1 ? 1 : 3);
    }

    private static CandidateId id(PlainStudy study, int candidate) {
        return study.candidates.get(candidate).id();
    }

    @Test
    public void whoStandsAboveIsRecommended() {
        PlainStudy study = clear(2);
        RecommendationReport report = report(study, RULE);
        assertThat(report.outcome()).isEqualTo(Outcome.RECOMMENDED);
        assertThat(report.leaderId()).isEqualTo(id(study, 0));
        assertThat(report.headline()).isEqualTo("We recommend Osier.");
        assertThat(report.field())
                .extracting(f -> f.place())
                .containsExactlyInAnyOrder(RecommendationReport.Place.BEST, RecommendationReport.Place.OUT);
        assertThat(report.revision()).isEqualTo(9);
        assertThat(report.basis().raters()).isEqualTo(2);
        assertThat(report.basis().prompts()).isEqualTo(8);
        assertThat(report.basis().answers()).isEqualTo(16);
        assertThat(report.basis().sentSheets()).isEqualTo(4);
        assertThat(report.basis().sheets()).isEqualTo(6);
        assertThat(report.blinding().giveAways()).isEqualTo(2);
        assertThat(report.looking().counted()).isEqualTo(8);
    }

    /** Correctness weighs 2 and idiom 1: (2 · 1/4 + 1 · 1/4) / 3 of 100 points is 25 for Teasel. */
    @Test
    public void scoresAreTheWeightedLevels() {
        PlainStudy study = clear(2);
        RecommendationReport report = report(study, RULE);
        var teasel = report.overall().get(1);
        assertThat(teasel.candidateId()).isEqualTo(id(study, 1));
        assertThat(teasel.plain().value()).isCloseTo(25, within(TINY));
        // Osier has 3 of 4 on idiom; on correctness 3, and 4 where the prompt's number and the rater's meet: 4 of 16.
        double osier = (2 * (3 + 4 / 16.0) / 4 + 3 / 4.0) / 3 * 100;
        assertThat(report.overall().get(0).plain().value()).isCloseTo(osier, within(TINY));
        assertThat(report.overall().get(0).scores()).isEqualTo(16);
        var difference = report.differences().get(0);
        assertThat(difference.higherId()).isEqualTo(id(study, 0));
        assertThat(difference.difference().value()).isCloseTo(osier - 25, within(TINY));
        // All the weight on idiom alone.
        RecommendationReport idiom = report(clear(2).weights(0, 1), RULE);
        assertThat(idiom.overall().get(0).plain().value()).isCloseTo(75, within(TINY));
        assertThat(idiom.byCriterion().get(0).standings().get(0).plain().value())
                .as("a criterion without weight has its standings too")
                .isCloseTo((3 + 4 / 16.0) / 4 * 100, within(TINY));
        assertThat(idiom.agreement()).extracting(a -> a.name()).containsExactly("Idiom");
    }

    @Test
    public void aBaselineAndWhomAFactRulesOutAreNotRecommended() {
        PlainStudy study = clear(3).baseline(0);
        RecommendationReport report = report(study, RULE);
        assertThat(report.leaderId()).isEqualTo(id(study, 2));
        assertThat(report.overall()).extracting(s -> s.candidateId()).contains(id(study, 0));
        assertThat(report.field()).extracting(f -> f.candidateId()).doesNotContain(id(study, 0));
        PlainStudy out = clear(3).ruledOut(2, "Code leaves the house.").baseline(0);
        RecommendationReport alone = report(out, RULE);
        assertThat(alone.outcome()).isEqualTo(Outcome.WITHHELD);
        assertThat(alone.ruledOut()).extracting(r -> r.reasons()).containsExactly(List.of("Code leaves the house."));
        assertThat(data(out, RULE).contenders()).extracting(c -> c.name()).containsExactly("Teasel");
    }

    @Test
    public void tooLittleAgreementWithholds() {
        PlainStudy study = clear(2);
        RecommendationReport report =
                RecommendationComputation.compute(0, data(study, RULE), agreement(study, 0.49), 0);
        assertThat(report.outcome()).isEqualTo(Outcome.WITHHELD);
        assertThat(report.headline()).isEqualTo("No recommendation yet: agreement on Correctness is below the floor.");
        assertThat(RecommendationComputation.compute(0, data(study, RULE), agreement(study, 0.5), 0)
                        .outcome())
                .as("exactly at the floor")
                .isEqualTo(Outcome.RECOMMENDED);
        // A criterion without weight holds nothing back.
        PlainStudy weightless = clear(2).weights(1, 0);
        StudyAgreement low = new StudyAgreement(
                agreement(weightless, 0.9).report(),
                List.of(
                        agreement(weightless, 0.9).decisive().get(0),
                        agreement(weightless, 0.1).decisive().get(1)));
        assertThat(RecommendationComputation.compute(0, data(weightless, RULE), low, 0)
                        .outcome())
                .isEqualTo(Outcome.RECOMMENDED);
    }

    @Test
    public void anAnswerWithTooFewRatersWithholds() {
        PlainStudy study = clear(2);
        study.grades.removeIf(g -> g.raterId().equals(study.raters.get(1).id())
                && g.answerId().equals(study.answer(3, 1).id()));
        RecommendationReport report = report(study, RULE);
        assertThat(report.outcome()).isEqualTo(Outcome.WITHHELD);
        assertThat(report.findings().get(0).sentence())
                .isEqualTo("1 of 16 answers has fewer than 2 raters; the fewest is 1.");
        // That prompt does not count at a look; the others do.
        RecommendationData data = data(study, RULE);
        assertThat(data.information()).isEqualTo(new RecommendationData.Information(7, 8));
        assertThat(data.information().share()).isEqualTo(7 / 8.0);
        assertThat(data.counted().prompts()).hasSize(7);
        assertThat(data.counted().answers()).hasSize(14);
        assertThat(data.counted().grades()).hasSize(7 * 2 * 2 * 2);
        assertThat(new RecommendationData.Information(0, 0).share()).isZero();
    }

    @Test
    public void whatLeftNothingToGradeHasTheLowestLevels() {
        PlainStudy study = clear(2);
        study.refused(0, 0);
        study.grades.removeIf(g -> g.answerId().equals(study.answer(0, 0).id()));
        RecommendationReport lowest = report(study, RULE);
        // Seven of eight prompts as before, and nothing on one: on idiom 7/8 of 75.
        assertThat(lowest.byCriterion().get(1).standings().get(0).plain().value())
                .isCloseTo(75 * 7 / 8.0, within(TINY));
        assertThat(lowest.failed().answers()).isOne();
        assertThat(data(study, RULE).withoutText()).hasSize(1);
        assertThat(data(study, RULE)
                        .graded(RuleTerms.FailedAnswers.LEFT_OUT, false)
                        .grid(new double[] {0, 1})
                        .orElseThrow())
                .isNotNull();
    }

    @Test
    public void whereOnlyTheRuleForWhatFailedDecidesBothAreTold() {
        // Osier is far ahead, and left nothing on half of the prompts.
        PlainStudy study = clear(2);
        for (int p = 0; p < 4; p++) {
            study.refused(p, 0);
        }
        study.grades.removeIf(
                g -> study.answers.stream().anyMatch(a -> a.isWithoutText() && a.id().equals(g.answerId())));
        RecommendationReport report = report(study, RULE);
        assertThat(report.outcome()).isNotEqualTo(Outcome.RECOMMENDED);
        assertThat(report.failed().answers()).isEqualTo(4);
        assertThat(report.failed().otherwise()).isEqualTo("We recommend Osier.");
    }

    @Test
    public void aGateCapsWhatFailsIt() {
        PlainStudy study = clear(2);
        RuleTerms gated = with(RULE, false, new RuleTerms.GateTerms("correctness", 1, 10));
        RecommendationReport report = report(study, gated);
        // Teasel has level 1 on correctness everywhere: 25 points are capped at 10, and criteria alone are not.
        assertThat(report.overall().get(1).plain().value()).isCloseTo(10, within(TINY));
        assertThat(report.byCriterion().get(0).standings().get(1).plain().value())
                .isCloseTo(25, within(TINY));
        assertThat(report(study, RULE).overall().get(1).plain().value()).isCloseTo(25, within(TINY));
    }

    @Test
    public void amongSafeChoicesTheTieBreakPrefersTheCheapOne() {
        PlainStudy study =
                new PlainStudy(2, 8, 2).graded(0, (p, c, r) -> 2 + (p + c) % 2).graded(1, (p, c, r) -> 2 + (p + c) % 2);
        for (int p = 0; p < 8; p++) {
            study.took(p, 0, 100L + p, "0.40").took(p, 1, 50L, "0.10");
        }
        RuleTerms byCost = PlainStudy.rule(0.5, 30, 2, TieBreak.COST);
        RecommendationReport report = report(study, byCost);
        assertThat(report.outcome()).isEqualTo(Outcome.SAFE_CHOICES);
        assertThat(report.leaderId()).isEqualTo(id(study, 1));
        assertThat(report.headline())
                .endsWith("The tie-break prefers Teasel: it costs 25 % of what the next one does.");
        assertThat(report.costs().means()).extracting(m -> m.mean()).containsExactlyInAnyOrder(0.4, 0.1);
        assertThat(report.costs().currency()).isEqualTo("EUR");
        assertThat(report.costs().prompts()).isEqualTo(8);
        var osier = report.measures().get(0);
        assertThat(osier.medianTotalMs()).as("of 100 to 107, rounded").isEqualTo(104);
        assertThat(osier.totalCost()).isEqualByComparingTo("3.20");
        assertThat(osier.complete()).isEqualTo(8);
        assertThat(report(study, PlainStudy.rule(0.5, 30, 2, TieBreak.TIME)).headline())
                .endsWith("it takes 48 % of what the next one does.");
        assertThat(report(study, PlainStudy.rule(0.5, 30, 2, TieBreak.NONE)).leaderId())
                .isNull();
        // One unknown cost makes it unknown.
        study.took(0, 0, null, null);
        assertThat(report(study, byCost).costs().means()).isEmpty();
        assertThat(report(study, byCost).costs().why()).isNotBlank();
        assertThat(report(study, byCost).leaderId()).isNull();
        assertThat(report(study, byCost).measures().get(0).medianTotalMs()).isEqualTo(104);
    }

    @Test
    public void whereNobodyIsBestOverallOneMayBeOfAKind() {
        // Osier is two levels better at every explanation; at reviews one of the two is right and the other is not, by
        // turns.
        PlainStudy study = new PlainStudy(2, 16, 4)
                .graded(0, (p, c, r) -> p % 2 == 1 ? (p / 2 % 2 == c ? 4 : 0) : c == 0 ? 3 : 1)
                .graded(1, (p, c, r) -> p % 2 == 1 ? (p / 2 % 2 == c ? 4 : 0) : c == 0 ? 3 : 1 - (p + r) % 2);
        RuleTerms byKind = new RuleTerms(
                RULE.coefficient(),
                0.5,
                RULE.floorOn(),
                5,
                2,
                TieBreak.NONE,
                false,
                false,
                true,
                1,
                RuleTerms.FailedAnswers.LOWEST,
                null);
        RecommendationReport report = report(study, byKind);
        assertThat(report.outcome())
                .as(report.findings().toString() + report.byKind())
                .isEqualTo(Outcome.BY_KIND);
        assertThat(report.headline()).isEqualTo("No candidate for all kinds. For explanation we recommend Osier.");
        assertThat(report.byKind()).extracting(k -> k.name()).containsExactly("Explanation", "Review");
        assertThat(report.allowance().kinds()).isPositive();
        assertThat(report(study, RULE).byKind()).isEmpty();
    }

    @Test
    public void laterLooksHaveWhatEarlierOnesLeft() {
        PlainStudy study = clear(2);
        RecommendationData plain = data(study, RULE);
        LookTaken half =
                new LookTaken(1, Instant.parse("2026-03-10T09:00:00Z"), "Orla", 4, 8, Outcome.UNDECIDED, "Undecided.");
        RecommendationData looked = new RecommendationData(
                plain.study(),
                plain.candidates(),
                plain.criteria(),
                plain.prompts(),
                plain.answers(),
                plain.raters(),
                plain.grades(),
                plain.ratersByAnswer(),
                List.of(),
                List.of(),
                new RecommendationData.Looking(List.of(half), 8),
                plain.round());
        assertThat(plain.decisionRule().allowance())
                .isEqualTo(RULE.decisionRule().allowance());
        assertThat(looked.decisionRule().allowance().overall())
                .isPositive()
                .isLessThan(plain.decisionRule().allowance().overall());
        assertThat(half.information()).isEqualTo(0.5);
        assertThat(half.inWords()).isEqualTo("look 1, at 4 of 8 prompts");
        assertThat(half.asAct().namesKnown()).isTrue();
    }

    @Test
    public void whatItHangsOnIsNamed() {
        PlainStudy study = clear(3);
        List<SentPlace> places = new ArrayList<>();
        List<SentGrade> once = study.grades.stream()
                .filter(g -> g.criterionId().equals(study.criteria.get(0).id()))
                .toList();
        for (int i = 0; i < once.size(); i++) {
            places.add(new SentPlace(
                    once.get(i).raterId(),
                    once.get(i).answerId(),
                    0,
                    i % 3,
                    Instant.parse("2026-03-10T09:00:00Z").plusSeconds(600L * i),
                    i % 4 == 0 ? id(study, 0) : null));
        }
        RobustnessReport report = RobustnessComputation.compute(data(study, RULE), agreement(study, 0.9), 0, places);
        assertThat(report.sentence()).isNotEmpty();
        assertThat(report.without()).extracting(w -> w.name()).contains("Rater A", "Prompt 3", "Idiom", "Review");
        assertThat(report.shares()).hasSize(3);
        assertThat(report.same()).isBetween(0.0, 1.0);
        assertThat(report.checks()).extracting(c -> c.of()).containsExactly(RobustnessReport.Influence.values());
        assertThat(report.checks()).allSatisfy(c -> assertThat(c.scores()).isPositive());
        var guesses = report.guesses();
        long hits = places.stream()
                .filter(p -> p.guess() != null)
                .filter(p -> data(study, RULE)
                        .answers()
                        .get(p.answerId())
                        .candidateId()
                        .equals(p.guess()))
                .count();
        assertThat(guesses.tries()).isEqualTo(12);
        assertThat(guesses.hits()).isEqualTo((int) hits);
        assertThat(guesses.chance()).isCloseTo(1 / 3.0, within(TINY));
        assertThat(guesses.share().value()).isCloseTo(hits / 12.0, within(TINY));
        assertThat(report.attempts()).as("nothing was asked twice").isEmpty();
        assertThat(report.bestPair().candidateIds()).hasSize(2);
        assertThat(report.mix().kinds()).containsExactlyInAnyOrder("Explanation", "Review");
        assertThat(report.worth()).as("no costs are known").isEmpty();
    }

    @Test
    public void whatIsWithheldHangsOnNothing() {
        PlainStudy study = clear(2);
        StudyAgreement none = new StudyAgreement(
                agreement(study, 0.9).report(),
                agreement(study, 0.9).decisive().stream()
                        .map(d -> new StudyAgreement.Decisive(
                                d.criterionId(),
                                d.criterion(),
                                d.weight(),
                                d.floor(),
                                Estimate.undefined(Reason.NO_PAIRS),
                                Interval.undefined(Reason.NO_PAIRS)))
                        .collect(Collectors.toList()));
        RobustnessReport report = RobustnessComputation.compute(data(study, RULE), none, 0, List.of());
        assertThat(report.sentence()).isEmpty();
        assertThat(report.without()).isEmpty();
        assertThat(report.guesses()).isNull();
    }

    @Test
    public void pointsAUnitOfMoneyAreTheScoreOverTheCost() {
        PlainStudy study = clear(2);
        for (int p = 0; p < 8; p++) {
            study.took(p, 0, 10L, "0.50").took(p, 1, 10L, "0.25");
        }
        RobustnessReport report = RobustnessComputation.compute(data(study, RULE), agreement(study, 0.9), 0, List.of());
        assertThat(report.worth())
                .filteredOn(w -> w.candidateId().equals(id(study, 1)))
                .allSatisfy(w -> assertThat(w.pointsAUnit().value()).isCloseTo(25 / 0.25, within(1e-6)));
        assertThat(report.worth()).extracting(w -> w.currency()).containsOnly("EUR");
        assertThat(report.worth()).hasSize(2);
    }
}
