package org.mossbank.server.masking;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.core.masking.GiveAways;
import org.mossbank.core.masking.Span;
import org.mossbank.core.masking.Terms;
import org.mossbank.server.answer.FactsOfAnswers;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Chunks;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Component;

/** What gives candidates away in a study's answers: what was decided on, and what was found beside it. */
@Component
class Stretches {
    private final FactsOfAnswers answers;
    private final Candidates candidates;
    private final Prompts prompts;
    private final MaskRepository masks;
    private final MaskingOfStudyRepository maskings;
    private final SearchedTexts searched;
    private final Snapshot snapshot;
    private final HeavyWork heavy;

    Stretches(
            FactsOfAnswers answers,
            Candidates candidates,
            Prompts prompts,
            MaskRepository masks,
            MaskingOfStudyRepository maskings,
            SearchedTexts searched,
            Snapshot snapshot,
            HeavyWork heavy) {
        this.answers = answers;
        this.candidates = candidates;
        this.prompts = prompts;
        this.masks = masks;
        this.maskings = maskings;
        this.searched = searched;
        this.snapshot = snapshot;
        this.heavy = heavy;
    }

    /**
     * One stretch.
     *
     * @param accepted whether it is masked; absent while nobody decided
     */
    record Stretch(
            Span span,
            GiveAway.Sort sort,
            String replacement,
            @Nullable Boolean accepted) {}

    /**
     * An answer with all its stretches in their order.
     *
     * @param complete whether that is all; a text that holds too many is not searched to its end
     */
    record AnswerStretches(FactsOfAnswers.Whole answer, List<Stretch> stretches, boolean complete) {}

    /** Answers to sound prompts, and what is looked for in them. */
    private record ToSearch(List<FactsOfAnswers.Head> answers, Terms terms) {}

    /** What is searched, but for what is known to have nothing; and what was decided before. */
    private record Basis(List<FactsOfAnswers.Whole> answers, Map<AnswerId, List<Mask>> decided, Terms terms) {}

    /** Answers to sound prompts in which there is anything; searched before any transaction begins. */
    List<AnswerStretches> workedOut(StudyId study) {
        ToSearch all = snapshot.of(() -> toSearch(study));
        searched.know(study, all.answers, all.terms, () -> search(study, all));
        Basis basis = snapshot.of(() -> basis(study, all));
        return heavy.run(() -> in(basis));
    }

    private void search(StudyId study, ToSearch all) {
        Basis basis = snapshot.of(() -> basis(study, all));
        heavy.run(() -> in(basis));
    }

    /** The same within a transaction that has called {@link #workedOut} before it began: then all of it is known. */
    List<AnswerStretches> ofStudy(StudyId study) {
        return in(basis(study, toSearch(study)));
    }

    /** All that raters may get to read, as it was before anything is masked. */
    List<FactsOfAnswers.Whole> toSoundPrompts(StudyId study) {
        Set<PromptId> sound = Set.copyOf(prompts.gradedIds(study));
        return answers.wholes(study).stream()
                .filter(a -> sound.contains(a.promptId()))
                .toList();
    }

    private ToSearch toSearch(StudyId study) {
        Set<PromptId> sound = Set.copyOf(prompts.gradedIds(study));
        return new ToSearch(
                answers.heads(study).stream()
                        .filter(a -> sound.contains(a.promptId()))
                        .toList(),
                terms(study));
    }

    private Basis basis(StudyId study, ToSearch all) {
        Map<AnswerId, List<Mask>> decided = decidedIn(study);
        Set<AnswerId> toRead = all.answers.stream()
                .filter(a -> decided.containsKey(a.id()) || !searched.isKnownToHoldNothing(a, all.terms))
                .map(FactsOfAnswers.Head::id)
                .collect(Collectors.toSet());
        return new Basis(answers.wholes(study, toRead), decided, all.terms);
    }

    private List<AnswerStretches> in(Basis basis) {
        GiveAways finder = GiveAways.of(basis.terms);
        return basis.answers.parallelStream()
                .map(a -> stretches(a, basis.terms, finder, basis.decided.getOrDefault(a.id(), List.of())))
                .filter(a -> !a.stretches().isEmpty())
                .toList();
    }

    Map<AnswerId, List<Mask>> decidedIn(StudyId study) {
        return byAnswer(masks.ofStudy(study));
    }

    /** The same for a few answers. */
    Map<AnswerId, List<Mask>> decided(Collection<AnswerId> answerIds) {
        return byAnswer(Chunks.of(answerIds, masks::ofAnswers));
    }

    private static Map<AnswerId, List<Mask>> byAnswer(List<Mask> all) {
        return all.stream().collect(Collectors.groupingBy(Mask::answerId));
    }

    Terms terms(StudyId study) {
        List<Candidates.Head> all = candidates.heads(study);
        return new Terms(
                all.stream().map(Candidates.Head::name).toList(),
                all.stream().map(Candidates.Head::version).toList(),
                maskings.findById(study).map(MaskingOfStudy::words).orElse(List.of()));
    }

    private AnswerStretches stretches(FactsOfAnswers.Whole answer, Terms terms, GiveAways finder, List<Mask> decided) {
        List<Stretch> stretches = new ArrayList<>();
        TreeMap<Integer, Span> settled = new TreeMap<>();
        for (Mask mask : decided) {
            Masking.Decided d = mask.decided();
            stretches.add(new Stretch(mask.span(), d.sort(), d.replacement(), d.accepted()));
            settled.put(mask.span().from(), mask.span());
        }
        GiveAways.Found all = searched.in(answer, terms, finder);
        for (GiveAway open : all.all()) {
            // What was decided on does not overlap, so the last that begins before the end is the one to look at.
            Map.Entry<Integer, Span> before = settled.lowerEntry(open.span().to());
            if (before == null || !before.getValue().overlaps(open.span())) {
                stretches.add(new Stretch(open.span(), open.sort(), open.replacement(), null));
            }
        }
        stretches.sort(Comparator.comparingInt(s -> s.span().from()));
        return new AnswerStretches(answer, stretches, all.complete());
    }

    /** @throws org.mossbank.server.shared.Problem 409 if raters calibrate by it */
    void refuseIfCalibrating(FactsOfAnswers.Whole answer) {
        prompts.refuseIfCalibrating(answer.promptId());
    }
}
