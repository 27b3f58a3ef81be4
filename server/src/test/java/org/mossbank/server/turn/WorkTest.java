package org.mossbank.server.turn;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.stream.Collectors;
import org.mossbank.core.turns.TurnVerdict;
import org.mossbank.server.PlainStudy;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.Works;
import org.mossbank.server.prompt.PromptView;
import org.testng.annotations.Test;

/** How much works, counted by hand, without a server. */
public class WorkTest {
    private static final PlainStudy STUDY = new PlainStudy(2, 4, 3);
    private static final Instant THEN = Instant.parse("2026-03-10T09:00:00Z");

    private static WorkReport report(
            List<AnswerFacts> answers, List<SaidOfAnswers.WorksSaid> works, List<Turns.Said> turns) {
        return WorkComputation.of(new WorkComputation.Basis(
                STUDY.candidates.stream()
                        .map(c -> new WorkReport.WorkCandidate(c.id(), c.name()))
                        .toList(),
                STUDY.prompts.stream().collect(Collectors.toMap(PromptView::id, p -> p)),
                answers,
                works,
                turns));
    }

    private static SaidOfAnswers.WorksSaid said(int prompt, int candidate, Works works, long times) {
        return new SaidOfAnswers.WorksSaid(STUDY.answer(prompt, candidate).id(), works, times);
    }

    private static Turns.Said turn(AnswerFacts answer, int turn, TurnVerdict verdict) {
        return new Turns.Said(answer.id(), turn, verdict, THEN, "Orla");
    }

    /** The answer of a candidate to a prompt, followed up so often. */
    private static AnswerFacts followed(int prompt, int candidate, int times) {
        AnswerFacts a = STUDY.answer(prompt, candidate);
        List<String> asked = new ArrayList<>();
        for (int i = 0; i < times; i++) {
            asked.add("Again.");
        }
        return new AnswerFacts(
                a.id(),
                a.key(),
                a.promptId(),
                a.candidateId(),
                a.attempt(),
                a.outcome(),
                a.measures(),
                asked,
                a.characters(),
                a.isWithoutText());
    }

    @Test
    public void anAnswerIsWhatMostOfThoseSayWhoTriedIt() {
        WorkReport.WorkRow osier = report(
                        STUDY.answers,
                        List.of(
                                said(0, 0, Works.AS_IS, 2),
                                said(0, 0, Works.NOT, 1),
                                said(1, 0, Works.AS_IS, 1),
                                said(1, 0, Works.NOT, 1),
                                said(2, 0, Works.GAVE_UP, 1),
                                said(2, 0, Works.NOT_TRIED, 2),
                                said(3, 0, Works.NOT_TRIED, 3)),
                        List.of())
                .parts()
                .get(0)
                .rows()
                .get(0);
        assertThat(osier.answers()).isEqualTo(4);
        assertThat(osier.said()).as("not the one that nobody tried").isEqualTo(3);
        assertThat(osier.asIs()).isEqualTo(1);
        assertThat(osier.split()).isEqualTo(1);
        assertThat(osier.gaveUp()).isEqualTo(1);
        // Clopper and Pearson's of 1 of 3, of tables
        assertThat(osier.share().low()).isCloseTo(0.0084, within(1e-4));
        assertThat(osier.share().high()).isCloseTo(0.9057, within(1e-4));
    }

    @Test
    public void turnsToAWorkingAnswerAreCounted() {
        AnswerFacts once = followed(0, 0, 1);
        AnswerFacts twice = followed(1, 0, 2);
        AnswerFacts never = followed(2, 0, 1);
        List<Turns.Said> turns = List.of(
                turn(once, 0, TurnVerdict.DOES_NOT),
                turn(once, 1, TurnVerdict.DOES),
                turn(twice, 0, TurnVerdict.DOES_NOT),
                turn(twice, 1, TurnVerdict.DOES_NOT),
                turn(twice, 2, TurnVerdict.DOES),
                turn(never, 0, TurnVerdict.SAID_DONE),
                turn(never, 1, TurnVerdict.GAVE_UP),
                turn(STUDY.answer(3, 0), 0, TurnVerdict.DOES));
        WorkReport report = report(List.of(once, twice, never, STUDY.answer(3, 0)), List.of(), turns);
        WorkReport.TurnCounts counts = report.parts().get(0).rows().get(0).turns();
        assertThat(counts.toWork()).containsExactly(1, 1, 1);
        assertThat(counts.never()).isEqualTo(1);
        assertThat(counts.unknown()).isZero();
        assertThat(counts.mended()).isEqualTo(2);
        assertThat(counts.stuck()).isEqualTo(2);
        assertThat(counts.broke()).isZero();
        assertThat(counts.mean().value()).isEqualTo(1);
        assertThat(report.courses()).as("those that were followed up").hasSize(3);
        assertThat(report.courses().get(0).marks()).hasSize(2);
    }

    @Test
    public void ratersWordStandsForTheLastReplyWhereNobodyElseSaid() {
        AnswerFacts once = followed(0, 0, 1);
        WorkReport report = report(
                List.of(once), List.of(said(0, 0, Works.AS_IS, 3)), List.of(turn(once, 0, TurnVerdict.DOES_NOT)));
        assertThat(report.parts().get(0).rows().get(0).turns().mended()).isEqualTo(1);
        assertThat(report.courses().get(0).marks())
                .containsExactly(
                        new WorkReport.TurnMark(TurnVerdict.DOES_NOT, false),
                        new WorkReport.TurnMark(TurnVerdict.DOES, true));
    }
}
