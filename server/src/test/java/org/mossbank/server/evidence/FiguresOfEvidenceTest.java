package org.mossbank.server.evidence;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.Contradiction;
import org.mossbank.core.trial.RepeatedTrials;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.PlainStudy;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.evidence.EvidenceReport.Standing;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.trial.Repairs.RepairMade;
import org.mossbank.server.trial.TriedAnswer;
import org.testng.annotations.Test;

/** What trials say beside grades, worked out by hand. */
public class FiguresOfEvidenceTest {
    private static final int MORE_THAN_IS_LISTED = 2_001;
    private static final Instant THEN = Instant.parse("2026-03-10T09:00:00Z");

    private final PlainStudy study;
    private final Map<AnswerId, TriedAnswer> tried = new HashMap<>();

    public FiguresOfEvidenceTest() {
        this(new PlainStudy(2, 4, 2));
    }

    private FiguresOfEvidenceTest(PlainStudy study) {
        this.study = study;
    }

    private static TriedAnswer.TurnTried turn(int turn, TrialOutcome... outcomes) {
        TrialOutcome worst =
                List.of(outcomes).stream().min(TrialOutcome::compareTo).orElseThrow();
        return new TriedAnswer.TurnTried(
                turn,
                new RepeatedTrials(List.of(outcomes)),
                new TrialSummary(worst, worst.passed() ? 1 : 0, 1),
                2,
                1,
                worst.passed() ? 0 : 3,
                1);
    }

    private void tried(int prompt, int candidate, TriedAnswer.TurnTried... turns) {
        AnswerId id = study.answer(prompt, candidate).id();
        tried.put(id, new TriedAnswer(study.answer(prompt, candidate).promptId(), id, List.of(turns), repairs(id)));
    }

    private final List<RepairMade> repairs = new ArrayList<>();

    private List<RepairMade> repairs(AnswerId id) {
        return repairs.stream().filter(r -> r.answerId().equals(id)).toList();
    }

    private void repaired(int prompt, int candidate, int rater, int lines, TrialOutcome outcome) {
        repairs.add(new RepairMade(
                RepairId.random(),
                study.answer(prompt, candidate).id(),
                new RepairMade.By(study.raters.get(rater).id(), THEN),
                List.of(),
                lines,
                new TrialSummary(outcome, 0, 1)));
    }

    private EvidenceReport report() {
        return EvidenceComputation.of(new EvidenceComputation.Basis(
                RaterTerms.TrialsShown.NEVER,
                study.candidates.stream()
                        .map(c -> new EvidenceReport.EvidenceCandidate(c.id(), c.name()))
                        .toList(),
                study.promptsById(),
                study.answers,
                tried));
    }

    private Standing standing(int prompt, int candidate) {
        return report().answers().stream()
                .filter(a -> a.answerId().equals(study.answer(prompt, candidate).id()))
                .findFirst()
                .orElseThrow()
                .standing();
    }

    @Test
    public void anAnswerStandsAsItsLastTurnAndItsSmallestRepairSay() {
        repaired(1, 0, 0, 4, TrialOutcome.PASSED);
        repaired(1, 0, 1, 2, TrialOutcome.PASSED);
        repaired(1, 0, 1, 1, TrialOutcome.CRASHED);
        tried(0, 0, turn(0, TrialOutcome.CRASHED), turn(1, TrialOutcome.PASSED, TrialOutcome.PASSED));
        tried(1, 0, turn(0, TrialOutcome.DID_NOT_COMPILE));
        tried(2, 0, turn(0, TrialOutcome.PASSED, TrialOutcome.WRONG_OUTPUT));
        tried(3, 0, turn(0, TrialOutcome.PASSED), turn(1, TrialOutcome.TIMED_OUT));

        assertThat(standing(0, 0)).as("the follow-up mended it").isEqualTo(Standing.AS_IS);
        assertThat(standing(1, 0)).isEqualTo(Standing.AFTER_REPAIR);
        assertThat(standing(2, 0)).isEqualTo(Standing.FLAKY);
        assertThat(standing(3, 0)).as("the follow-up broke it").isEqualTo(Standing.NOT);
        assertThat(standing(0, 1)).isEqualTo(Standing.NOT_TRIED);
        EvidenceReport.AnswerEvidence repaired = report().answers().stream()
                .filter(a -> a.standing() == Standing.AFTER_REPAIR)
                .findFirst()
                .orElseThrow();
        assertThat(repaired.lines()).isEqualTo(2);
        assertThat(repaired.repairs()).isEqualTo(3);
        EvidenceReport.CandidateEvidence osier =
                report().parts().get(0).candidates().get(0);
        assertThat(osier.tried()).isEqualTo(4);
        assertThat(List.of(osier.worksAsIs(), osier.worksAfterRepair(), osier.worksNot(), osier.flaky()))
                .containsExactly(1, 1, 1, 1);
        assertThat(osier.warnings()).isEqualTo(8);
        assertThat(osier.deprecations()).isEqualTo(4);
        assertThat(osier.breaking()).isEqualTo(3);
        // Wilson's of 1 of 4 at 95 %: (1 + z²/2 ± z sqrt(3/4 + z²/4)) / (4 + z²) with z = 1.95996
        assertThat(osier.asIs().low()).isCloseTo(0.0456, within(1e-4));
        assertThat(osier.asIs().high()).isCloseTo(0.6994, within(1e-4));
        assertThat(osier.withRepairs().value()).isEqualTo(0.5);
        EvidenceReport.CandidateEvidence teasel =
                report().parts().get(0).candidates().get(1);
        assertThat(teasel.asIs().value()).isNull();
        assertThat(report().parts()).as("all, and two kinds").hasSize(3);
        assertThat(report().parts().get(1).candidates().get(0).answers()).isEqualTo(2);
    }

    private GradedEvidence graded(
            RaterTerms.TrialsShown shown, List<TrialSeen.Seen> seen, List<SaidOfAnswers.WhySaid> whys) {
        return GradedComputation.of(new GradedComputation.Basis(
                shown,
                study.criteria.get(0),
                study.grades.stream()
                        .filter(g ->
                                g.criterionId().equals(study.criteria.get(0).id()))
                        .toList(),
                study.answers,
                tried,
                whys,
                seen,
                new TreeMap<>(
                        study.raters.stream().collect(Collectors.toMap(AccountView::id, AccountView::displayName))),
                Map.of(study.raters.get(0).id(), 3)));
    }

    private TrialSeen.Seen seen(int rater, int prompt, int candidate, @Nullable Integer level) {
        AccountId id = study.raters.get(rater).id();
        return new TrialSeen.Seen(id, study.answer(prompt, candidate).id(), THEN, level);
    }

    @Test
    public void whatIsNotListedIsCountedToo() {
        FiguresOfEvidenceTest large = new FiguresOfEvidenceTest(new PlainStudy(1, MORE_THAN_IS_LISTED, 1));
        for (int prompt = 0; prompt < MORE_THAN_IS_LISTED; prompt++) {
            large.tried(prompt, 0, turn(0, TrialOutcome.FAILED_TESTS));
            large.study.grade(0, prompt, 0, 0, 4);
        }

        GradedEvidence graded = large.graded(RaterTerms.TrialsShown.NEVER, List.of(), List.of());

        assertThat(graded.contradicting()).isEqualTo(MORE_THAN_IS_LISTED);
        assertThat(graded.contradictions()).hasSizeLessThan(MORE_THAN_IS_LISTED);
    }

    @Test
    public void onlyTheEndsOfTheScaleContradictATrialThatIsSure() {
        tried.clear();
        tried(0, 0, turn(0, TrialOutcome.FAILED_TESTS));
        tried(0, 1, turn(0, TrialOutcome.PASSED));
        tried(1, 0, turn(0, TrialOutcome.PASSED, TrialOutcome.CRASHED));
        study.grades.clear();
        study.grade(0, 0, 0, 0, 4).grade(1, 0, 0, 0, 3);
        study.grade(0, 0, 1, 0, 0).grade(1, 0, 1, 0, 1);
        study.grade(0, 1, 0, 0, 4).grade(1, 1, 0, 0, 0);
        study.grade(0, 2, 0, 0, 4);

        List<GradedEvidence.ContradictionView> found =
                graded(RaterTerms.TrialsShown.NEVER, List.of(), List.of()).contradictions();

        assertThat(found.stream().map(GradedEvidence.ContradictionView::sort))
                .containsExactlyInAnyOrder(
                        Contradiction.TOP_GRADE_THOUGH_IT_FAILS, Contradiction.LOWEST_GRADE_THOUGH_IT_PASSES);
        assertThat(found.stream().map(GradedEvidence.ContradictionView::rater).distinct())
                .containsExactly(study.raters.get(0).displayName());
        assertThat(found.stream().map(GradedEvidence.ContradictionView::highest).distinct())
                .containsExactly(4);
    }

    @Test
    public void whatWasChangedAfterALookIsCountedOnceARaterAndAnswer() {
        tried.clear();
        study.grades.clear();
        for (int prompt = 0; prompt < 4; prompt++) {
            study.grade(0, prompt, 0, 0, prompt).grade(1, prompt, 0, 0, prompt);
        }
        List<TrialSeen.Seen> looks = new ArrayList<>();
        for (int prompt = 0; prompt < 4; prompt++) {
            looks.add(seen(0, prompt, 0, prompt));
            looks.add(seen(1, prompt, 0, 3 - prompt));
        }
        looks.add(seen(0, 0, 0, 4));
        looks.add(seen(0, 0, 1, 2));

        GradedEvidence.SeenByRaters seen =
                graded(RaterTerms.TrialsShown.AFTER_OWN_GRADE, looks, List.of()).seen();

        assertThat(seen.answers())
                .as("the second look, and what was not graded, left out")
                .isEqualTo(8);
        assertThat(seen.changed()).isEqualTo(4);
        assertThat(seen.raised()).isEqualTo(2);
        assertThat(seen.after().value()).as("alike by now").isEqualTo(1);
        assertThat(seen.before().value()).as("turned round before").isNegative();
        assertThat(seen.withTrials().value()).isEqualTo(1);
        assertThat(seen.withoutTrials().value()).isNull();
    }

    @Test
    public void whatRatersSaidAndTriedIsTheirs() {
        tried.clear();
        repairs.clear();
        repaired(0, 0, 1, 1, TrialOutcome.PASSED);
        repaired(0, 0, 0, 1, TrialOutcome.CRASHED);
        tried(0, 0, turn(0, TrialOutcome.CRASHED));
        study.grades.clear();
        SaidOfAnswers.WhySaid why = new SaidOfAnswers.WhySaid(
                study.answer(0, 0).id(), study.raters.get(1).id(), Works.NOT, "It hangs.");

        GradedEvidence graded = graded(RaterTerms.TrialsShown.NEVER, List.of(), List.of(why));

        GradedEvidence many =
                graded(RaterTerms.TrialsShown.NEVER, List.of(), Collections.nCopies(MORE_THAN_IS_LISTED, why));
        assertThat(many.saidOtherwise()).isEqualTo(MORE_THAN_IS_LISTED);
        assertThat(many.otherwise()).hasSizeLessThan(MORE_THAN_IS_LISTED);
        assertThat(graded.saidOtherwise()).isEqualTo(1);
        assertThat(graded.otherwise()).hasSize(1);
        assertThat(graded.otherwise().get(0).byTrial()).isEqualTo(Works.AFTER_REPAIR);
        assertThat(graded.people().stream().map(p -> p.inputs() + " " + p.repairs()))
                .containsExactlyInAnyOrder("3 1", "0 1");
    }
}
