package org.mossbank.server.masking;

import com.github.benmanes.caffeine.cache.Cache;
import com.github.benmanes.caffeine.cache.Caffeine;
import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.UUID;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.masking.GiveAway;
import org.mossbank.core.masking.GiveAways;
import org.mossbank.core.masking.Span;
import org.mossbank.core.masking.Terms;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.candidate.Candidates;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.Prompts;
import org.springframework.stereotype.Component;

/** What gives candidates away in a study's answers: what was decided on, and what was found beside it. */
@Component
class Stretches {
    private static final int ANSWERS_KEPT = 20_000;

    private final Answers answers;
    private final Candidates candidates;
    private final Prompts prompts;
    private final MaskRepository masks;
    private final MaskingOfStudyRepository maskings;

    /** Searching is a pure function of these, so that what was found can be kept by them. */
    private record Searched(UUID answer, long version, Terms terms) {}

    private final Cache<Searched, List<GiveAway>> found =
            Caffeine.newBuilder().maximumSize(ANSWERS_KEPT).build();

    Stretches(
            Answers answers,
            Candidates candidates,
            Prompts prompts,
            MaskRepository masks,
            MaskingOfStudyRepository maskings) {
        this.answers = answers;
        this.candidates = candidates;
        this.prompts = prompts;
        this.masks = masks;
        this.maskings = maskings;
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

    /** An answer with all its stretches in their order. */
    record AnswerStretches(AnswerView answer, List<Stretch> stretches) {}

    /** Answers to sound prompts in which there is anything. */
    List<AnswerStretches> ofStudy(UUID study) {
        Set<UUID> sound = prompts.sound(study).stream().map(PromptView::id).collect(Collectors.toSet());
        List<AnswerView> all = answers.ofStudy(study).stream()
                .filter(a -> sound.contains(a.promptId()))
                .toList();
        Map<UUID, List<Mask>> decided = decided(all.stream().map(AnswerView::id).toList());
        Terms terms = terms(study);
        GiveAways finder = GiveAways.of(terms);
        return all.stream()
                .map(a -> new AnswerStretches(a, stretches(a, terms, finder, decided.getOrDefault(a.id(), List.of()))))
                .filter(a -> !a.stretches().isEmpty())
                .toList();
    }

    Map<UUID, List<Mask>> decided(List<UUID> answerIds) {
        Map<UUID, List<Mask>> byAnswer = new HashMap<>();
        if (!answerIds.isEmpty()) {
            masks.ofAnswers(answerIds)
                    .forEach(m -> byAnswer.computeIfAbsent(m.answerId(), a -> new ArrayList<>())
                            .add(m));
        }
        return byAnswer;
    }

    Terms terms(UUID study) {
        List<CandidateView> all = candidates.ofStudy(study);
        return new Terms(
                all.stream().map(CandidateView::name).toList(),
                all.stream().map(c -> c.content().version()).toList(),
                maskings.findById(study).map(MaskingOfStudy::words).orElse(List.of()));
    }

    private List<Stretch> stretches(AnswerView answer, Terms terms, GiveAways finder, List<Mask> decided) {
        List<Stretch> stretches = new ArrayList<>();
        decided.forEach(m -> stretches.add(new Stretch(
                m.span(),
                m.decided().sort(),
                m.decided().replacement(),
                m.decided().accepted())));
        found.get(new Searched(answer.id(), answer.version(), terms), s -> finder.in(answer.wholeText())).stream()
                .filter(g -> decided.stream().noneMatch(m -> m.span().overlaps(g.span())))
                .forEach(g -> stretches.add(new Stretch(g.span(), g.sort(), g.replacement(), null)));
        stretches.sort(Comparator.comparingInt(s -> s.span().from()));
        return stretches;
    }
}
