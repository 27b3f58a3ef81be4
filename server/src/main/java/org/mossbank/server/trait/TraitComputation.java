package org.mossbank.server.trait;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Binomial;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.StudentMean;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.RemarkContent.Stance;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.KindView;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Component;

/** Counts what raters said of answers beside levels. */
@Component
class TraitComputation {
    private static final double LEVEL = 0.95;
    private static final double HALF = 0.5;
    private static final int MOST_ROWS = 60;
    private static final int MOST_EXAMPLES = 3;

    private final Candidates candidates;
    private final Prompts prompts;
    private final FactsOfAnswers answers;
    private final Grading grading;
    private final SaidOfAnswers said;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    TraitComputation(
            Candidates candidates,
            Prompts prompts,
            FactsOfAnswers answers,
            Grading grading,
            SaidOfAnswers said,
            Snapshot snapshot,
            HeavyWork heavy) {
        this.candidates = candidates;
        this.prompts = prompts;
        this.answers = answers;
        this.grading = grading;
        this.said = said;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    /**
     * What it is made of, as it stood at one moment.
     *
     * @param answers to sound prompts that somebody graded
     */
    record Basis(
            List<TraitReport.TraitCandidate> candidates,
            Map<PromptId, PromptView> prompts,
            Map<AnswerId, AnswerFacts> answers,
            List<SaidOfAnswers.TraitSaid> traits,
            List<SaidOfAnswers.PointsFound> points) {}

    TraitReport of(StudyId study) {
        Basis basis = snapshot.of(() -> read(study));
        return heavy.run(() -> of(basis));
    }

    private Basis read(StudyId study) {
        Map<AnswerId, Long> graded = grading.ratersByAnswer(study);
        return new Basis(
                candidates.ofStudy(study).stream()
                        .map(c -> new TraitReport.TraitCandidate(c.id(), c.name()))
                        .toList(),
                prompts.sound(study).stream().collect(Collectors.toMap(PromptView::id, p -> p)),
                answers.ofStudy(study).stream()
                        .filter(a -> graded.containsKey(a.id()))
                        .collect(Collectors.toMap(AnswerFacts::id, a -> a)),
                said.traits(study),
                said.points(study));
    }

    static TraitReport of(Basis basis) {
        List<KindView> kinds = basis.prompts.values().stream()
                .map(PromptView::kind)
                .distinct()
                .sorted(Comparator.comparing(KindView::name))
                .toList();
        List<TraitReport.TraitPart> parts = new ArrayList<>();
        parts.add(new Part(basis, null, "").made());
        if (kinds.size() > 1) {
            kinds.forEach(k -> parts.add(new Part(basis, k.id(), k.name()).made()));
        }
        return new TraitReport(basis.candidates, parts);
    }

    /** Names a row. */
    private record Trait(Stance stance, String name) {}

    /** What was said of answers to prompts of one kind, or of all. */
    private static final class Part {
        private final Basis basis;

        @Nullable
        private final KindId kind;

        private final String name;
        private final Map<CandidateId, Long> graded;

        Part(Basis basis, @Nullable KindId kind, String name) {
            this.basis = basis;
            this.kind = kind;
            this.name = name;
            this.graded = basis.answers.values().stream()
                    .filter(this::isOfKind)
                    .collect(Collectors.groupingBy(AnswerFacts::candidateId, Collectors.counting()));
        }

        private boolean isOfKind(AnswerFacts answer) {
            PromptView prompt = basis.prompts.get(answer.promptId());
            return prompt != null && (kind == null || prompt.kind().id().equals(kind));
        }

        TraitReport.TraitPart made() {
            Map<Trait, List<SaidOfAnswers.TraitSaid>> byTrait = new LinkedHashMap<>();
            for (SaidOfAnswers.TraitSaid one : basis.traits) {
                AnswerFacts answer = basis.answers.get(one.answerId());
                if (answer != null && isOfKind(answer)) {
                    byTrait.computeIfAbsent(new Trait(one.stance(), one.trait()), t -> new ArrayList<>())
                            .add(one);
                }
            }
            List<TraitReport.TraitRow> rows = byTrait.entrySet().stream()
                    .sorted(Comparator.comparingInt((Map.Entry<Trait, List<SaidOfAnswers.TraitSaid>> e) ->
                                    -e.getValue().size())
                            .thenComparing(e -> e.getKey().name)
                            .thenComparing(e -> e.getKey().stance))
                    .map(e -> row(e.getKey(), e.getValue()))
                    .toList();
            List<TraitReport.PointsCell> points = points();
            return new TraitReport.TraitPart(
                    kind,
                    name,
                    TraitSentences.of(basis.candidates, rows, points),
                    rows.stream().limit(MOST_ROWS).toList(),
                    Math.max(0, rows.size() - MOST_ROWS),
                    points);
        }

        private TraitReport.TraitRow row(Trait trait, List<SaidOfAnswers.TraitSaid> said) {
            Map<CandidateId, List<SaidOfAnswers.TraitSaid>> byCandidate = said.stream()
                    .collect(Collectors.groupingBy(
                            s -> Require.known(basis.answers, s.answerId()).candidateId()));
            return new TraitReport.TraitRow(
                    trait.stance,
                    trait.name,
                    basis.candidates.stream()
                            .map(c -> cell(c.id(), byCandidate.getOrDefault(c.id(), List.of())))
                            .toList());
        }

        private TraitReport.TraitCell cell(CandidateId candidate, List<SaidOfAnswers.TraitSaid> said) {
            int of = graded.getOrDefault(candidate, 0L).intValue();
            Binomial share = Binomial.of(said.size(), of, HALF, LEVEL);
            return new TraitReport.TraitCell(
                    candidate,
                    said.size(),
                    (int) said.stream().filter(s -> s.raters() > 1).count(),
                    of,
                    Figure.of(share.share(), share.interval()),
                    said.stream()
                            .sorted(Comparator.comparingLong((SaidOfAnswers.TraitSaid s) -> -s.raters())
                                    .thenComparing(s -> s.answerId().toString()))
                            .limit(MOST_EXAMPLES)
                            .map(this::example)
                            .toList());
        }

        private TraitReport.TraitExample example(SaidOfAnswers.TraitSaid said) {
            AnswerFacts answer = Require.known(basis.answers, said.answerId());
            return new TraitReport.TraitExample(
                    answer.id(),
                    answer.promptId(),
                    Require.known(basis.prompts, answer.promptId()).title(),
                    (int) said.raters());
        }

        private List<TraitReport.PointsCell> points() {
            Map<AnswerId, double[]> found = new HashMap<>();
            for (SaidOfAnswers.PointsFound one : basis.points) {
                AnswerFacts answer = basis.answers.get(one.answerId());
                if (answer != null && isOfKind(answer)) {
                    double[] sum = found.computeIfAbsent(one.answerId(), a -> new double[2]);
                    sum[0] += one.times() * covered(one.verdict());
                    sum[1] += one.times();
                }
            }
            if (found.isEmpty()) {
                return List.of();
            }
            return basis.candidates.stream().map(c -> points(c.id(), found)).toList();
        }

        private static double covered(Verdict verdict) {
            return verdict == Verdict.COVERED ? 1 : verdict == Verdict.PARTLY ? HALF : 0;
        }

        private TraitReport.PointsCell points(CandidateId candidate, Map<AnswerId, double[]> found) {
            Predicate<AnswerId> own =
                    a -> Require.known(basis.answers, a).candidateId().equals(candidate);
            double[] shares = found.entrySet().stream()
                    .filter(e -> own.test(e.getKey()))
                    .mapToDouble(e -> Objects.requireNonNull(e.getValue())[0] / e.getValue()[1])
                    .toArray();
            return new TraitReport.PointsCell(candidate, shares.length, mean(shares));
        }
    }

    /** Cut at 0 and 1, as shares are. */
    private static Figure mean(double[] shares) {
        StudentMean found = StudentMean.of(shares, LEVEL);
        return Figure.of(
                found.mean(),
                found.interval() instanceof Interval.Bounds b
                        ? new Interval.Bounds(Math.max(0, b.low()), Math.min(1, b.high()), b.level())
                        : found.interval());
    }
}
