package org.mossbank.server.trait;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import java.util.List;
import java.util.stream.Collectors;
import org.mossbank.server.PlainStudy;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.grading.RemarkContent.Stance;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.prompt.PromptView;
import org.testng.annotations.Test;

/** What was said of answers beside levels, counted by hand, without a server. */
public class TraitsTest {
    private static final PlainStudy STUDY = new PlainStudy(2, 8, 3);

    private static TraitReport report(List<SaidOfAnswers.TraitSaid> traits, List<SaidOfAnswers.PointsFound> points) {
        return TraitComputation.of(new TraitComputation.Basis(
                STUDY.candidates.stream()
                        .map(c -> new TraitReport.TraitCandidate(c.id(), c.name()))
                        .toList(),
                STUDY.prompts.stream().collect(Collectors.toMap(PromptView::id, p -> p)),
                STUDY.answers.stream().collect(Collectors.toMap(AnswerFacts::id, a -> a)),
                traits,
                points));
    }

    private static AnswerId answer(int prompt, int candidate) {
        return STUDY.answer(prompt, candidate).id();
    }

    private static SaidOfAnswers.TraitSaid fault(int prompt, int candidate, String trait, long raters) {
        return new SaidOfAnswers.TraitSaid(answer(prompt, candidate), Stance.FAULT, trait, raters);
    }

    @Test
    public void anAnswerCountsOnceHoweverManySaidIt() {
        TraitReport report = report(
                List.of(
                        fault(0, 0, "ignored the request", 3),
                        fault(1, 0, "ignored the request", 1),
                        fault(2, 1, "ignored the request", 1)),
                List.of());
        TraitReport.TraitRow row = report.parts().get(0).rows().get(0);
        TraitReport.TraitCell osier = row.cells().get(0);
        assertThat(osier.answers()).isEqualTo(2);
        assertThat(osier.agreed()).as("by more than one").isEqualTo(1);
        assertThat(osier.of()).isEqualTo(8);
        assertThat(osier.share().value()).isEqualTo(0.25);
        // Clopper and Pearson's of 2 of 8, of tables
        assertThat(osier.share().low()).isCloseTo(0.0319, within(1e-4));
        assertThat(osier.share().high()).isCloseTo(0.6509, within(1e-4));
        assertThat(osier.examples().get(0).answerId()).isEqualTo(answer(0, 0));
        assertThat(row.cells().get(1).answers()).isEqualTo(1);
    }

    @Test
    public void praiseAndFaultAreTwoThings() {
        TraitReport report = report(
                List.of(fault(0, 0, "names", 1), new SaidOfAnswers.TraitSaid(answer(0, 0), Stance.CREDIT, "names", 1)),
                List.of());
        assertThat(report.parts().get(0).rows()).hasSize(2);
    }

    @Test
    public void kindsAreCountedByThemselves() {
        TraitReport report = report(List.of(fault(0, 0, "slow", 1), fault(1, 0, "slow", 1)), List.of());
        assertThat(report.parts()).hasSize(3);
        assertThat(report.parts().subList(1, 3)).allSatisfy(p -> {
            assertThat(p.rows().get(0).cells().get(0).answers()).isEqualTo(1);
            assertThat(p.rows().get(0).cells().get(0).of()).isEqualTo(4);
        });
    }

    @Test
    public void keyPointsAreTheMeanOverAnswers() {
        TraitReport report = report(
                List.of(),
                List.of(
                        new SaidOfAnswers.PointsFound(answer(0, 0), Verdict.COVERED, 3),
                        new SaidOfAnswers.PointsFound(answer(0, 0), Verdict.MISSED, 1),
                        new SaidOfAnswers.PointsFound(answer(1, 0), Verdict.PARTLY, 2)));
        TraitReport.PointsCell osier = report.parts().get(0).points().get(0);
        // by hand: the mean of 3/4 and 1/2
        assertThat(osier.share().value()).isCloseTo(0.625, within(1e-12));
        assertThat(osier.of()).isEqualTo(2);
        assertThat(osier.share().low()).as("cut where shares end").isZero();
        TraitReport.PointsCell teasel = report.parts().get(0).points().get(1);
        assertThat(teasel.share().value()).isNull();
    }

    @Test
    public void aSentenceSaysWhatWasSaidMostOften() {
        TraitReport report = report(
                List.of(
                        fault(0, 0, "ignored the request", 1),
                        fault(1, 0, "ignored the request", 1),
                        fault(2, 0, "ignored the request", 1),
                        fault(0, 0, "slow", 1),
                        fault(1, 0, "slow", 1),
                        fault(4, 0, "once", 1),
                        new SaidOfAnswers.TraitSaid(answer(3, 0), Stance.CREDIT, "names", 2),
                        new SaidOfAnswers.TraitSaid(answer(4, 0), Stance.CREDIT, "names", 2)),
                List.of());
        assertThat(report.parts().get(0).sentences())
                .containsExactly("Osier: fault found with “ignored the request” in 3 of 8 answers, “slow” in 2; "
                        + "praised for “names” in 2 of 8 answers.");
    }

    @Test
    public void rowsHaveAnEndAndSaySo() {
        List<SaidOfAnswers.TraitSaid> many = java.util.stream.IntStream.range(0, 75)
                .mapToObj(i -> fault(0, 0, "trait " + i, 1))
                .toList();
        TraitReport.TraitPart part = report(many, List.of()).parts().get(0);
        assertThat(part.rows()).hasSize(60);
        assertThat(part.more()).isEqualTo(15);
    }
}
