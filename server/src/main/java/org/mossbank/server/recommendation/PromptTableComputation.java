package org.mossbank.server.recommendation;

import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.trial.Trials;
import org.mossbank.server.trial.TriedAnswer;
import org.springframework.stereotype.Component;

/** Lays out what each candidate made of each prompt. */
@Component
class PromptTableComputation {
    private static final double HALF = 0.5;

    private final RecommendationBasis basis;
    private final SaidOfAnswers said;
    private final Trials trials;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    PromptTableComputation(
            RecommendationBasis basis, SaidOfAnswers said, Trials trials, Snapshot snapshot, HeavyWork heavy) {
        this.basis = basis;
        this.trials = trials;
        this.said = said;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    /** What the table is made of, as it stood at one moment. */
    record Basis(
            RecommendationData data,
            List<SaidOfAnswers.WorksSaid> works,
            List<SaidOfAnswers.PointsFound> points,
            Map<AnswerId, TriedAnswer> tried) {}

    PromptTable of(StudyId study) {
        Basis read = snapshot.of(
                () -> new Basis(basis.of(study), said.works(study), said.points(study), trials.ofStudy(study)));
        return heavy.run(() -> of(read));
    }

    /** What raters and trials said of one answer beside its levels. */
    private static final class Said {
        private final Map<Works, Long> works = new EnumMap<>(Works.class);
        private final Map<Verdict, Long> points = new EnumMap<>(Verdict.class);
        private @Nullable TriedAnswer trial;

        /** As it came, each time that it was tried. Repairs are made after the round was opened, too. */
        boolean passes() {
            return Optional.ofNullable(trial)
                    .flatMap(TriedAnswer::last)
                    .flatMap(l -> l.trials().outcome())
                    .filter(TrialOutcome::passed)
                    .isPresent();
        }

        int times(Works how) {
            return works.getOrDefault(how, 0L).intValue();
        }

        int allPoints() {
            return (int) points.values().stream().mapToLong(Long::longValue).sum();
        }

        double covered() {
            return points.getOrDefault(Verdict.COVERED, 0L) + HALF * points.getOrDefault(Verdict.PARTLY, 0L);
        }
    }

    static PromptTable of(Basis basis) {
        RecommendationData data = basis.data;
        Map<String, Double> scores =
                data.graded(data.rule().failedAnswers(), true).meansOfAnswers(data.weights());
        Map<AnswerId, Said> said = new HashMap<>();
        basis.works.forEach(
                w -> said.computeIfAbsent(w.answerId(), a -> new Said()).works.put(w.works(), w.times()));
        basis.points.forEach(
                p -> said.computeIfAbsent(p.answerId(), a -> new Said()).points.put(p.verdict(), p.times()));
        basis.tried.forEach((answer, trial) -> said.computeIfAbsent(answer, a -> new Said()).trial = trial);
        Map<PromptId, List<AnswerFacts>> byPrompt =
                data.answers().values().stream().collect(Collectors.groupingBy(AnswerFacts::promptId));
        return new PromptTable(
                data.candidates().stream()
                        .map(RecommendationReport.CandidateName::of)
                        .toList(),
                data.prompts().values().stream()
                        .sorted(Comparator.comparing((PromptView p) -> p.kind().name())
                                .thenComparing(PromptView::title)
                                .thenComparing(PromptView::key))
                        .map(p -> row(p, byPrompt.getOrDefault(p.id(), List.of()), data.candidates(), scores, said))
                        .toList());
    }

    private static PromptTable.PromptRow row(
            PromptView prompt,
            List<AnswerFacts> answers,
            List<CandidateView> candidates,
            Map<String, Double> scores,
            Map<AnswerId, Said> said) {
        List<PromptTable.PromptCell> cells = new ArrayList<>();
        for (CandidateView candidate : candidates) {
            List<PromptTable.PromptCell> attempts = answers.stream()
                    .filter(a -> a.candidateId().equals(candidate.id()))
                    .sorted(Comparator.comparingInt(AnswerFacts::attempt))
                    .map(a -> cell(a, scores.get(a.key()), said.getOrDefault(a.id(), new Said())))
                    .toList();
            PromptTable.PromptCell sum = sum(candidate.id(), attempts);
            cells.add(
                    attempts.isEmpty()
                            ? sum
                            : at(sum, Objects.requireNonNull(attempts.get(0).answerId())));
        }
        double[] given = scores(cells);
        Arrays.sort(given);
        return new PromptTable.PromptRow(
                prompt.id(),
                prompt.title(),
                prompt.kind().id(),
                prompt.kind().name(),
                prompt.content().size(),
                prompt.content().areas(),
                prompt.wording(),
                cells,
                mean(given),
                given.length < 2 ? null : (Double) (given[given.length - 1] - given[0]));
    }

    private static PromptTable.PromptCell cell(AnswerFacts answer, @Nullable Double score, Said said) {
        return new PromptTable.PromptCell(
                answer.candidateId(),
                score,
                1,
                answer.outcome() == Outcome.COMPLETE ? 1 : 0,
                said.times(Works.AS_IS),
                said.times(Works.AFTER_REPAIR),
                said.times(Works.NOT) + said.times(Works.GAVE_UP) + said.times(Works.SAID_DONE),
                said.trial == null ? 0 : 1,
                said.passes() ? 1 : 0,
                said.allPoints(),
                said.covered(),
                answer.asked().size(),
                answer.measures().cost(),
                answer.measures().currency(),
                answer.measures().totalMs(),
                answer.id());
    }

    private static PromptTable.PromptCell at(PromptTable.PromptCell c, AnswerId answer) {
        return new PromptTable.PromptCell(
                c.candidateId(),
                c.score(),
                c.answers(),
                c.complete(),
                c.asIs(),
                c.repaired(),
                c.not(),
                c.tried(),
                c.passed(),
                c.points(),
                c.covered(),
                c.followUps(),
                c.cost(),
                c.currency(),
                c.totalMs(),
                answer);
    }

    /** Several together: counts add up, scores are a mean. */
    static PromptTable.PromptCell sum(CandidateId candidate, List<PromptTable.PromptCell> cells) {
        List<PromptTable.PromptCell> some =
                cells.stream().filter(c -> c.answers() > 0).toList();
        List<String> currencies = some.stream()
                .map(PromptTable.PromptCell::currency)
                .filter(Objects::nonNull)
                .distinct()
                .toList();
        boolean priced = currencies.size() == 1 && some.stream().allMatch(c -> c.cost() != null);
        boolean timed = !some.isEmpty() && some.stream().allMatch(c -> c.totalMs() != null);
        return new PromptTable.PromptCell(
                candidate,
                mean(scores(some)),
                some.stream().mapToInt(PromptTable.PromptCell::answers).sum(),
                some.stream().mapToInt(PromptTable.PromptCell::complete).sum(),
                some.stream().mapToInt(PromptTable.PromptCell::asIs).sum(),
                some.stream().mapToInt(PromptTable.PromptCell::repaired).sum(),
                some.stream().mapToInt(PromptTable.PromptCell::not).sum(),
                some.stream().mapToInt(PromptTable.PromptCell::tried).sum(),
                some.stream().mapToInt(PromptTable.PromptCell::passed).sum(),
                some.stream().mapToInt(PromptTable.PromptCell::points).sum(),
                some.stream().mapToDouble(PromptTable.PromptCell::covered).sum(),
                some.stream().mapToInt(PromptTable.PromptCell::followUps).sum(),
                priced
                        ? some.stream()
                                .map(c -> Objects.requireNonNull(c.cost()))
                                .reduce(BigDecimal.ZERO, BigDecimal::add)
                        : null,
                priced ? currencies.get(0) : null,
                timed
                        ? (Long) some.stream()
                                .mapToLong(c -> Objects.requireNonNull(c.totalMs()))
                                .sum()
                        : null,
                null);
    }

    private static double[] scores(List<PromptTable.PromptCell> cells) {
        return cells.stream()
                .map(PromptTable.PromptCell::score)
                .filter(Objects::nonNull)
                .mapToDouble(s -> s)
                .toArray();
    }

    private static @Nullable Double mean(double[] given) {
        return given.length == 0
                ? null
                : (Double) Arrays.stream(given).average().orElseThrow();
    }
}
