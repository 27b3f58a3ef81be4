package org.mossbank.server.turn;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.EnumMap;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.OptionalInt;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Binomial;
import org.mossbank.core.estimate.StudentMean;
import org.mossbank.core.turns.Course;
import org.mossbank.core.turns.TurnVerdict;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.AnswerId;
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

/** Counts what works, by what raters and leads said of it. */
@Component
class WorkComputation {
    private static final double LEVEL = 0.95;
    private static final double HALF = 0.5;
    private static final int MOST_COURSES = 300;

    private final Candidates candidates;
    private final Prompts prompts;
    private final FactsOfAnswers answers;
    private final Grading grading;
    private final SaidOfAnswers said;
    private final Turns turns;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    WorkComputation(
            Candidates candidates,
            Prompts prompts,
            FactsOfAnswers answers,
            Grading grading,
            SaidOfAnswers said,
            Turns turns,
            Snapshot snapshot,
            HeavyWork heavy) {
        this.candidates = candidates;
        this.prompts = prompts;
        this.answers = answers;
        this.grading = grading;
        this.said = said;
        this.turns = turns;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    /**
     * What it is made of, as it stood at one moment.
     *
     * @param answers to sound prompts that somebody graded
     */
    record Basis(
            List<WorkReport.WorkCandidate> candidates,
            Map<PromptId, PromptView> prompts,
            List<AnswerFacts> answers,
            List<SaidOfAnswers.WorksSaid> works,
            List<Turns.Said> turns) {}

    WorkReport of(StudyId study) {
        Basis basis = snapshot.of(() -> read(study));
        return heavy.run(() -> of(basis));
    }

    private Basis read(StudyId study) {
        Map<AnswerId, Long> graded = grading.ratersByAnswer(study);
        return new Basis(
                candidates.ofStudy(study).stream()
                        .map(c -> new WorkReport.WorkCandidate(c.id(), c.name()))
                        .toList(),
                prompts.sound(study).stream().collect(Collectors.toMap(PromptView::id, p -> p)),
                answers.ofStudy(study).stream()
                        .filter(a -> graded.containsKey(a.id()))
                        .toList(),
                said.works(study),
                turns.ofStudy(study));
    }

    /**
     * An answer with what was said of it.
     *
     * @param tried whether a rater tried it
     * @param most  what most of them say; empty where no verdict has more than half
     */
    private record Worked(
            AnswerFacts facts, boolean tried, Optional<Works> most, List<WorkReport.TurnMark> marks, Course course) {}

    static WorkReport of(Basis basis) {
        Map<AnswerId, Map<Works, Long>> words = new HashMap<>();
        basis.works.forEach(w -> words.computeIfAbsent(w.answerId(), a -> new EnumMap<>(Works.class))
                .put(w.works(), w.times()));
        Map<AnswerId, List<Turns.Said>> byAnswer =
                basis.turns.stream().collect(Collectors.groupingBy(Turns.Said::answerId));
        List<Worked> all = basis.answers.stream()
                .filter(a -> basis.prompts.containsKey(a.promptId()))
                .map(a -> worked(a, words.getOrDefault(a.id(), Map.of()), byAnswer.getOrDefault(a.id(), List.of())))
                .toList();
        List<KindView> kinds = basis.prompts.values().stream()
                .map(PromptView::kind)
                .distinct()
                .sorted(Comparator.comparing(KindView::name))
                .toList();
        List<WorkReport.WorkPart> parts = new ArrayList<>();
        parts.add(part(null, "", all, basis));
        if (kinds.size() > 1) {
            kinds.forEach(k -> parts.add(part(k.id(), k.name(), all, basis)));
        }
        List<WorkReport.CourseView> courses = all.stream()
                .filter(w -> w.marks.size() > 1)
                .map(w -> course(w, basis))
                .sorted(Comparator.comparing(WorkReport.CourseView::title)
                        .thenComparing(c -> c.candidateId().toString())
                        .thenComparing(WorkReport.CourseView::attempt))
                .toList();
        int shown = Math.min(MOST_COURSES, courses.size());
        return new WorkReport(basis.candidates, parts, courses.subList(0, shown), courses.size() - shown);
    }

    private static Worked worked(AnswerFacts facts, Map<Works, Long> words, List<Turns.Said> turns) {
        Optional<Works> most = Works.most(words);
        TurnVerdict[] found = new TurnVerdict[facts.asked().size() + 1];
        turns.stream().filter(t -> t.turn() < found.length).forEach(t -> found[t.turn()] = t.verdict());
        boolean byRaters = found[found.length - 1] == null;
        if (byRaters) {
            most.flatMap(Works::verdict).ifPresent(v -> found[found.length - 1] = v);
        }
        List<WorkReport.TurnMark> marks = new ArrayList<>();
        for (int i = 0; i < found.length; i++) {
            marks.add(new WorkReport.TurnMark(found[i], byRaters && i == found.length - 1 && found[i] != null));
        }
        return new Worked(
                facts,
                Works.tried(words) > 0,
                most,
                marks,
                new Course(Arrays.stream(found).map(Optional::ofNullable).toList()));
    }

    private static WorkReport.WorkPart part(@Nullable KindId kind, String name, List<Worked> all, Basis basis) {
        List<Worked> of = all.stream()
                .filter(w -> kind == null
                        || Objects.requireNonNull(basis.prompts.get(w.facts.promptId()))
                                .kind()
                                .id()
                                .equals(kind))
                .toList();
        return new WorkReport.WorkPart(
                kind,
                name,
                basis.candidates.stream()
                        .map(c -> row(
                                c,
                                of.stream()
                                        .filter(w -> w.facts.candidateId().equals(c.id()))
                                        .toList()))
                        .toList());
    }

    private static WorkReport.WorkRow row(WorkReport.WorkCandidate candidate, List<Worked> own) {
        int said = count(own, Worked::tried);
        int asIs = most(own, Works.AS_IS);
        Binomial share = Binomial.of(asIs, said, HALF, LEVEL);
        return new WorkReport.WorkRow(
                candidate.id(),
                own.size(),
                said,
                asIs,
                most(own, Works.AFTER_REPAIR),
                most(own, Works.NOT),
                most(own, Works.GAVE_UP),
                most(own, Works.SAID_DONE),
                count(own, w -> w.tried && w.most.isEmpty()),
                Figure.of(share.share(), share.interval()),
                turns(own));
    }

    private static int count(List<Worked> own, Predicate<Worked> which) {
        return (int) own.stream().filter(which).count();
    }

    private static int most(List<Worked> own, Works works) {
        return count(own, w -> w.most.equals(Optional.of(works)));
    }

    private static WorkReport.TurnCounts turns(List<Worked> own) {
        List<Integer> followUps = own.stream()
                .map(w -> w.course.followUpsToWork())
                .filter(OptionalInt::isPresent)
                .map(OptionalInt::getAsInt)
                .toList();
        int longest = followUps.stream().mapToInt(Integer::intValue).max().orElse(-1);
        int never = count(own, w -> w.course.isWithoutSuccess());
        List<Course.Step> steps =
                own.stream().flatMap(w -> w.course.steps().stream()).toList();
        StudentMean mean = StudentMean.of(
                followUps.stream().mapToDouble(Integer::doubleValue).toArray(), LEVEL);
        return new WorkReport.TurnCounts(
                IntStream.rangeClosed(0, longest)
                        .mapToObj(k ->
                                (int) followUps.stream().filter(f -> f == k).count())
                        .toList(),
                never,
                own.size() - followUps.size() - never,
                steps(steps, Course.Step.MENDED),
                steps(steps, Course.Step.BROKE),
                steps(steps, Course.Step.STUCK),
                Figure.of(mean.mean(), mean.interval()));
    }

    private static int steps(List<Course.Step> all, Course.Step which) {
        return (int) all.stream().filter(s -> s == which).count();
    }

    private static WorkReport.CourseView course(Worked worked, Basis basis) {
        AnswerFacts facts = worked.facts;
        return new WorkReport.CourseView(
                facts.id(),
                facts.promptId(),
                Objects.requireNonNull(basis.prompts.get(facts.promptId())).title(),
                facts.candidateId(),
                facts.attempt(),
                worked.marks);
    }
}
