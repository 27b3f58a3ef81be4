package org.mossbank.server.recommendation;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.math.BigDecimal;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.core.decision.DecisionRule.TieBreak;
import org.mossbank.core.trial.RepeatedTrials;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.PlainStudy;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.trial.TriedAnswer;
import org.testng.annotations.Test;

/** What each candidate made of each prompt, from grades that can be counted by hand, without a server. */
public class PromptTableTest {
    private static final double TINY = 1e-9;

    private static PromptTable table(
            PlainStudy study, List<SaidOfAnswers.WorksSaid> works, List<SaidOfAnswers.PointsFound> points) {
        return table(study, works, points, Map.of());
    }

    private static PromptTable table(
            PlainStudy study,
            List<SaidOfAnswers.WorksSaid> works,
            List<SaidOfAnswers.PointsFound> points,
            Map<AnswerId, TriedAnswer> tried) {
        return PromptTableComputation.of(new PromptTableComputation.Basis(
                FiguresOfRecommendationTest.data(study, PlainStudy.rule(0.5, 5, 2, TieBreak.NONE)),
                works,
                points,
                tried));
    }

    /** Of two candidates, the first better by two levels of correctness at the first prompt, and by one at the others. */
    private static PlainStudy study(int prompts) {
        return new PlainStudy(2, prompts, 2)
                .graded(0, (p, c, r) -> c == 0 ? 3 : p == 0 ? 1 : 2)
                .graded(1, (p, c, r) -> r == 0 ? 4 : 2);
    }

    private static PromptTable.PromptRow first(PromptTable table, PlainStudy study) {
        return table.rows().stream()
                .filter(r -> r.promptId().equals(study.prompts.get(0).id()))
                .findFirst()
                .orElseThrow();
    }

    @Test
    public void aCellIsTheMeanOfWhatRatersGave() {
        PlainStudy study = study(2);
        PromptTable.PromptRow row = first(table(study, List.of(), List.of()), study);
        // Weights 2 and 1: (2 · 3 + (4 + 2) / 2) / 12 and (2 · 1 + 3) / 12 of 100.
        assertThat(row.cells().get(0).score()).isCloseTo(75, within(TINY));
        assertThat(row.cells().get(1).score()).isCloseTo(500 / 12.0, within(TINY));
        assertThat(row.spread()).isCloseTo(75 - 500 / 12.0, within(TINY));
        assertThat(row.mean()).isCloseTo((75 + 500 / 12.0) / 2, within(TINY));
    }

    @Test
    public void whatRatersSaidBesideIsCounted() {
        PlainStudy study = study(2);
        AnswerId answer = study.answer(0, 1).id();
        PromptTable.PromptCell cell = first(
                        table(
                                study,
                                List.of(
                                        new SaidOfAnswers.WorksSaid(answer, Works.AS_IS, 2),
                                        new SaidOfAnswers.WorksSaid(answer, Works.NOT_TRIED, 5),
                                        new SaidOfAnswers.WorksSaid(answer, Works.NOT, 1)),
                                List.of(
                                        new SaidOfAnswers.PointsFound(answer, Verdict.COVERED, 3),
                                        new SaidOfAnswers.PointsFound(answer, Verdict.PARTLY, 1),
                                        new SaidOfAnswers.PointsFound(answer, Verdict.CONTRADICTED, 2))),
                        study)
                .cells()
                .get(1);
        assertThat(List.of(cell.asIs(), cell.repaired(), cell.not())).containsExactly(2, 0, 1);
        assertThat(cell.points()).isEqualTo(6);
        assertThat(cell.covered()).isEqualTo(3.5);
        assertThat(cell.answerId()).isEqualTo(answer);
    }

    private static Map<AnswerId, TriedAnswer> tried(PlainStudy study, int candidate, TrialOutcome... times) {
        AnswerId answer = study.answer(0, candidate).id();
        TrialOutcome worst =
                List.of(times).stream().min(TrialOutcome::compareTo).orElseThrow();
        return Map.of(
                answer,
                new TriedAnswer(
                        study.prompts.get(0).id(),
                        answer,
                        List.of(new TriedAnswer.TurnTried(
                                0, new RepeatedTrials(List.of(times)), new TrialSummary(worst, 0, 1), 0, 0, 0, 0)),
                        List.of()));
    }

    @Test
    public void whatPassesEachTimeIsCountedAmongWhatWasTried() {
        PlainStudy study = study(2);
        Map<AnswerId, TriedAnswer> tried = new HashMap<>(tried(study, 0, TrialOutcome.PASSED, TrialOutcome.PASSED));
        tried.putAll(tried(study, 1, TrialOutcome.PASSED, TrialOutcome.TIMED_OUT));
        PromptTable table = table(study, List.of(), List.of(), tried);
        List<PromptTable.PromptCell> cells = first(table, study).cells();
        assertThat(List.of(cells.get(0).tried(), cells.get(0).passed())).containsExactly(1, 1);
        assertThat(List.of(cells.get(1).tried(), cells.get(1).passed())).containsExactly(1, 0);
        assertThat(view(table, PromptTableView.By.LISTED, null, false).sums())
                .as("over both prompts, of which one was tried")
                .extracting(PromptTable.PromptCell::tried)
                .containsExactly(1, 1);
    }

    private static PromptTable.PromptCell cell(Double score, String cost, String currency, Long ms) {
        return new PromptTable.PromptCell(
                CandidateId.random(),
                score,
                1,
                1,
                0,
                0,
                0,
                1,
                0,
                0,
                0,
                1,
                cost == null ? null : new BigDecimal(cost),
                currency,
                ms,
                AnswerId.random());
    }

    @Test
    public void whatIsNotKnownOfOneIsNotKnownOfTheSum() {
        CandidateId candidate = CandidateId.random();
        PromptTable.PromptCell sum = PromptTableComputation.sum(
                candidate, List.of(cell(50.0, "0.20", "EUR", 4L), cell(null, "0.30", "EUR", 6L)));
        assertThat(sum.score()).as("of those that have one").isEqualTo(50);
        assertThat(sum.cost()).isEqualByComparingTo("0.50");
        assertThat(sum.totalMs()).isEqualTo(10);
        assertThat(sum.followUps()).isEqualTo(2);
        PromptTable.PromptCell mixed = PromptTableComputation.sum(
                candidate, List.of(cell(50.0, "0.20", "EUR", 4L), cell(70.0, "0.30", "USD", null)));
        assertThat(mixed.cost()).isNull();
        assertThat(mixed.currency()).isNull();
        assertThat(mixed.totalMs()).isNull();
        assertThat(PromptTableComputation.sum(candidate, List.of()).totalMs()).isNull();
    }

    private static PromptTableView view(PromptTable table, PromptTableView.By by, CandidateId candidate, boolean down) {
        return PromptTableView.of(table, new PromptTableView.Asked(PromptTableView.Among.ALL, by, candidate, down, 0));
    }

    @Test
    public void rowsAreOrderedByAFigureAndThoseWithoutItAreLast() {
        PlainStudy study = study(3);
        study.grades.removeIf(g -> g.answerId().equals(study.answer(2, 1).id()));
        PromptTable table = table(study, List.of(), List.of());
        CandidateId second = study.candidates.get(1).id();
        assertThat(view(table, PromptTableView.By.CANDIDATE, second, false).rows())
                .extracting(PromptTable.PromptRow::promptId)
                .containsExactly(
                        study.prompts.get(0).id(),
                        study.prompts.get(1).id(),
                        study.prompts.get(2).id());
        assertThat(view(table, PromptTableView.By.SPREAD, null, true).rows())
                .extracting(PromptTable.PromptRow::promptId)
                .containsExactly(
                        study.prompts.get(0).id(),
                        study.prompts.get(1).id(),
                        study.prompts.get(2).id());
        assertThat(view(table, PromptTableView.By.TITLE, null, true).rows())
                .extracting(PromptTable.PromptRow::title)
                .isSortedAccordingTo(java.util.Comparator.reverseOrder());
    }

    @Test
    public void aWindowTellsOfAllThatItIsOutOf() {
        PlainStudy study = study(130);
        PromptTable table = table(study, List.of(), List.of());
        PromptTableView end = PromptTableView.of(
                table,
                new PromptTableView.Asked(PromptTableView.Among.ALL, PromptTableView.By.LISTED, null, false, 100));
        assertThat(end.rows()).hasSize(30);
        assertThat(end.prompts()).isEqualTo(130);
        // By hand: of the first candidate every score is 75; of the second one is 500 / 12 and 129 are 700 / 12.
        assertThat(end.sums().get(0).score()).isCloseTo(75, within(TINY));
        assertThat(end.sums().get(1).score()).isCloseTo((500 + 129 * 700) / 12.0 / 130, within(TINY));
        assertThat(end.sums().get(1).answers()).isEqualTo(130);
        PromptTableView ofKind = PromptTableView.of(
                table,
                new PromptTableView.Asked(
                        new PromptTableView.Among(study.prompts.get(0).kind().id(), null, null),
                        PromptTableView.By.LISTED,
                        null,
                        false,
                        9_000));
        assertThat(ofKind.rows()).isEmpty();
        assertThat(ofKind.prompts()).isEqualTo(65);
        PromptTableView nowhere = PromptTableView.of(
                table,
                new PromptTableView.Asked(
                        new PromptTableView.Among(null, null, "no such area"),
                        PromptTableView.By.LISTED,
                        null,
                        false,
                        0));
        assertThat(nowhere.prompts()).isZero();
        assertThat(nowhere.areas()).as("what can be chosen stays").isEqualTo(ofKind.areas());
    }
}
