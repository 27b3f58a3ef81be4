package org.mossbank.server.agreement;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.List;
import java.util.stream.Collectors;
import org.mossbank.core.decision.DecisionRule;
import org.mossbank.server.PlainStudy;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.grading.SentPlace;
import org.mossbank.server.shared.Figure;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

/** Figures of agreement from grades that can be counted by hand, without a server. */
public class FiguresOfAgreementTest {
    private static final double TINY = 1e-12;

    /** Six prompts, two candidates, three raters; rater C gives one level less to one candidate on the first two prompts. */
    private static PlainStudy study() {
        return new PlainStudy(2, 6, 3)
                .graded(0, (p, c, r) -> (c == 0 ? 1 : 3) - (r == 2 && c == 1 && p < 2 ? 1 : 0))
                .graded(1, (p, c, r) -> p % 5);
    }

    private static AgreementData data(PlainStudy study, double floor, List<SentGrade> repeats) {
        return new AgreementData(
                study.study(PlainStudy.rule(floor, 5, 2, DecisionRule.TieBreak.NONE)),
                study.kinds,
                study.criteria,
                study.answers.stream()
                        .collect(Collectors.toMap(
                                AnswerFacts::id,
                                a -> study.prompts.stream()
                                        .filter(p -> p.id().equals(a.promptId()))
                                        .findFirst()
                                        .orElseThrow())),
                study.answers.stream().collect(Collectors.toMap(AnswerFacts::id, AnswerFacts::candidateId)),
                study.ratersById(),
                study.grades,
                repeats,
                List.of(),
                new Grading.SheetTotals(17, 18),
                List.of());
    }

    private static StudyAgreement of(PlainStudy study, double floor) {
        return AgreementComputation.compute(data(study, floor, List.of()), 5);
    }

    @Test
    public void sharesOfPairsAreThoseCounted() {
        AgreementReport report = of(study(), 0.5).report();
        var overall = report.criteria().get(0).overall();
        // 12 answers of three raters: 36 pairs, of which two answers have two pairs each one level apart.
        assertThat(overall.pairs()).isEqualTo(36);
        assertThat(overall.answers()).isEqualTo(12);
        assertThat(overall.prompts()).isEqualTo(6);
        assertThat(overall.exact().value()).isCloseTo(32 / 36.0, within(TINY));
        assertThat(overall.withinOne().value()).isCloseTo(1, within(TINY));
        assertThat(report.criteria().get(1).overall().exact().value()).isCloseTo(1, within(TINY));
        assertThat(report.revision()).isEqualTo(5);
        assertThat(report.sentSheets()).isEqualTo(17);
        assertThat(report.sheets()).isEqualTo(18);
    }

    /** Levels 1, 2, 3 are given 18, 2, 16 times; ordinal distances are sums of counts between, halves at the ends. */
    @Test
    public void alphaIsThatOfTheCounts() {
        double d12 = Math.pow(18 / 2.0 + 2 / 2.0, 2);
        double d23 = Math.pow(2 / 2.0 + 16 / 2.0, 2);
        double d13 = Math.pow(18 / 2.0 + 2 + 16 / 2.0, 2);
        // Two answers have levels 3, 3, 2: two disagreeing pairs of three raters, each weighing 1 / (3 - 1), both
        // orders.
        double observed = 2 * (2 * 2 * d23) / 2;
        double expected = 2 * (18 * 2 * d12 + 2 * 16 * d23 + 18 * 16 * d13) / (36 - 1);
        Figure alpha = of(study(), 0.5).report().criteria().get(0).overall().alpha();
        assertThat(alpha.value()).isCloseTo(1 - observed / expected, within(TINY));
        assertThat(of(study(), 0.5).decisive().get(0).value().value().orElseThrow())
                .isEqualTo(alpha.value());
    }

    @Test
    public void withinAKindOnlyItsOwnGradesCount() {
        var byKind = of(study(), 0.5).report().criteria().get(0).byKind();
        assertThat(byKind).extracting(k -> k.name()).containsExactly("Explanation", "Review");
        // Each kind has three prompts, and one of the two answers on which raters part.
        assertThat(byKind).allSatisfy(k -> {
            assertThat(k.figures().pairs()).isEqualTo(18);
            assertThat(k.figures().exact().value()).isCloseTo(16 / 18.0, within(TINY));
        });
        assertThat(byKind.get(0).figures().resampled())
                .as("of three prompts, answers are left out")
                .isEqualTo(AgreementReport.Resampled.ANSWERS);
        assertThat(of(study(), 0.5).report().criteria().get(0).overall().resampled())
                .isEqualTo(AgreementReport.Resampled.PROMPTS);
    }

    @Test
    public void aCriterionHasItsOwnFloorWhereOneIsSet() {
        StudyAgreement own = of(study().floor(1, 0.9), 0.5);
        assertThat(own.decisive()).extracting(StudyAgreement.Decisive::floor).containsExactly(0.5, 0.9);
        assertThat(own.report().criteria()).extracting(c -> c.floor()).containsExactly(0.5, 0.9);
        assertThat(own.decisive()).extracting(StudyAgreement.Decisive::weight).containsExactly(2.0, 1.0);
        double value = own.decisive().get(0).value().value().orElseThrow();
        assertThat(own.decisive().get(0).aboveFloor().orElseThrow()).isCloseTo(value - 0.5, within(TINY));
    }

    @Test
    public void whereNothingCanBeComputedNothingIsAboveAFloor() {
        StudyAgreement none = of(new PlainStudy(2, 2, 2), 0.5);
        assertThat(none.decisive().get(0).aboveFloor()).isEmpty();
        assertThat(none.report().criteria().get(0).overall().verdict()).isEqualTo(Verdict.UNDEFINED);
    }

    @DataProvider
    public static Object[][] verdicts() {
        return new Object[][] {
            {0.7, 0.6, 0.8, 0.5, Verdict.ABOVE},
            {0.7, 0.6, 0.8, 0.6, Verdict.ABOVE},
            {0.7, 0.6, 0.8, 0.61, Verdict.UNCERTAIN},
            {0.7, 0.6, 0.8, 0.8, Verdict.UNCERTAIN},
            {0.7, 0.6, 0.8, 0.81, Verdict.BELOW},
            {0.7, null, null, 0.1, Verdict.UNCERTAIN},
            {0.7, null, null, 0.9, Verdict.UNCERTAIN},
            {null, null, null, 0.1, Verdict.UNDEFINED},
        };
    }

    @Test(dataProvider = "verdicts")
    public void theWholeIntervalDecides(Double value, Double low, Double high, double floor, Verdict expected) {
        assertThat(Verdict.of(new Figure(value, low, high, 0.95, null, null), floor))
                .isEqualTo(expected);
    }

    @Test
    public void eachPairOfRatersIsThereOnceACriterion() {
        var pairs = of(study(), 0.5).report().pairs();
        assertThat(pairs).hasSize(6).allSatisfy(p -> assertThat(p.answers()).isEqualTo(12));
        // A and B are alike: 1. A and C: 10 of 12 alike and two a level apart, from 6, 0, 6 against 6, 2, 4.
        var correctness = pairs.subList(0, 3);
        assertThat(correctness).extracting(p -> p.quadratic().value() == 1).containsOnlyOnce(true);
        double observed = 2 / 12.0;
        double chance = (6 * 2 + 6 * 4 * 4 + 6 * 6 * 4 + 6 * 2) / 144.0;
        assertThat(correctness)
                .filteredOn(p -> p.quadratic().value() != 1)
                .allSatisfy(p -> assertThat(p.quadratic().value()).isCloseTo(1 - observed / chance, within(TINY)));
        double chanceLinear = (6 * 2 + 6 * 4 * 2 + 6 * 6 * 2 + 6 * 2) / 144.0;
        assertThat(correctness)
                .filteredOn(p -> p.linear().value() != 1)
                .allSatisfy(p -> assertThat(p.linear().value()).isCloseTo(1 - observed / chanceLinear, within(TINY)));
    }

    @Test
    public void theStrictOneIsBelowTheOthers() {
        var severity = of(study(), 0.5).report().severity();
        assertThat(severity).extracting(s -> s.name()).containsExactly("Rater A", "Rater B", "Rater C");
        assertThat(severity.get(2).severity().value())
                .isGreaterThan(severity.get(0).severity().value());
        assertThat(severity.get(0).grades()).isEqualTo(24);
        // Of idiom two prompts of six are at level 0 or, the fifth, at 4: 0, 1, 2, 3, 4, 0, two answers each.
        assertThat(severity.get(0).shareAtEnds()).isCloseTo(6 / 24.0, within(TINY));
    }

    @Test
    public void splitsAreWidestFirstAndCountedWhole() {
        PlainStudy study = new PlainStudy(2, 60, 2)
                .graded(0, (p, c, r) -> r == 0 ? 0 : p == 7 ? 4 : c == 0 ? 2 : 1)
                .graded(1, (p, c, r) -> 2);
        AgreementReport report = of(study, 0.5).report();
        // 60 answers lie two levels apart, and two of prompt 7 four.
        assertThat(report.splitCount()).isEqualTo(61);
        assertThat(report.splits()).extracting(s -> s.distance()).startsWith(4, 4, 2);
        assertThat(report.splits().get(0).promptTitle()).isEqualTo("Prompt 7");
        assertThat(report.splits().get(0).grades())
                .extracting(g -> g.levelName())
                .contains("Level 0", "Level 4");
        PlainStudy more = new PlainStudy(2, 60, 2).graded(0, (p, c, r) -> 2 * r).graded(1, (p, c, r) -> 2);
        assertThat(of(more, 0.5).report().splitCount()).isEqualTo(120);
        assertThat(of(more, 0.5).report().splits()).hasSize(100);
    }

    @Test
    public void whoGradesAnAnswerAgainIsComparedWithThemselves() {
        PlainStudy study = study();
        PlainStudy again = new PlainStudy(2, 6, 3)
                .grade(0, 0, 0, 0, 1)
                .grade(0, 1, 0, 0, 2)
                .grade(0, 2, 1, 0, 3)
                .grade(0, 3, 1, 0, 0)
                .grade(0, 0, 0, 1, 0);
        AgreementReport report =
                AgreementComputation.compute(data(study, 0.5, again.grades), 1).report();
        assertThat(report.selfAgreement()).hasSize(1);
        var self = report.selfAgreement().get(0);
        assertThat(self.name()).isEqualTo("Rater A");
        // Of five second grades three are the same, and one of the others is a level off.
        assertThat(self.grades()).isEqualTo(5);
        assertThat(self.exact().value()).isCloseTo(3 / 5.0, within(TINY));
        assertThat(self.withinOne().value()).isCloseTo(4 / 5.0, within(TINY));
        assertThat(self.kappa().value()).isNotNull();
    }

    @Test
    public void diagnosisNamesWhatPartsRaters() {
        PlainStudy study = study();
        List<SentPlace> places = study.grades.stream()
                .map(g -> new SentPlace(
                        g.raterId(),
                        g.answerId(),
                        study.prompts.indexOf(study.prompts.stream()
                                .filter(p -> g.answerId()
                                                .equals(study.answer(study.prompts.indexOf(p), 0)
                                                        .id())
                                        || g.answerId()
                                                .equals(study.answer(study.prompts.indexOf(p), 1)
                                                        .id()))
                                .findFirst()
                                .orElseThrow()),
                        0,
                        Instant.parse("2026-03-10T09:00:00Z"),
                        null))
                .toList();
        var correctness = DiagnosisComputation.compute(data(study, 0.5, List.of()), places)
                .criteria()
                .get(0);
        // The first two prompts hold all disagreement, in equal parts; C is in every pair that parts; levels 2 and 3.
        assertThat(correctness.prompts().subList(0, 2))
                .extracting(p -> p.title())
                .containsExactlyInAnyOrder("Prompt 0", "Prompt 1");
        assertThat(correctness.prompts().get(2).share()).isZero();
        assertThat(correctness.prompts().get(0).share()).isCloseTo(0.5, within(TINY));
        assertThat(correctness.raterPairs().get(0).share()).isCloseTo(0.5, within(TINY));
        assertThat(correctness.levelPairs().get(0).lower()).isEqualTo(2);
        assertThat(correctness.levelPairs().get(0).higher()).isEqualTo(3);
        assertThat(correctness.merged().get(0).lower()).isEqualTo(2);
        assertThat(correctness.merged().get(0).alpha().value()).isCloseTo(1, within(TINY));
        // Without C nobody parts.
        assertThat(correctness.withoutRater())
                .filteredOn(w -> w.raterId().equals(study.raters.get(2).id()))
                .allSatisfy(w -> assertThat(w.alpha().value()).isCloseTo(1, within(TINY)));
        assertThat(correctness.withoutPrompt().get(0).title()).isIn("Prompt 0", "Prompt 1");
        assertThat(correctness.withoutPrompt().get(0).alpha().value())
                .isGreaterThan(correctness.alpha().value())
                .isGreaterThanOrEqualTo(
                        correctness.withoutPrompt().get(1).alpha().value());
        // C begins a level under the others on half of the answers, and ends level with them.
        assertThat(correctness.drift())
                .filteredOn(d -> d.raterId().equals(study.raters.get(2).id()))
                .allSatisfy(d -> {
                    assertThat(d.slope().value()).isPositive();
                    assertThat(d.grades()).isEqualTo(12);
                });
        assertThat(correctness.useOfScale())
                .filteredOn(u -> u.raterId().equals(study.raters.get(2).id()))
                .allSatisfy(u -> assertThat(u.counts()).containsExactly(0, 6, 2, 4, 0));
    }
}
