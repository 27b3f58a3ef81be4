package org.mossbank.server.evidence;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.function.Predicate;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.agreement.KrippendorffAlpha;
import org.mossbank.core.agreement.Metric;
import org.mossbank.core.agreement.Rating;
import org.mossbank.core.agreement.RatingMatrix;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.trial.Contradiction;
import org.mossbank.server.answer.AnswerFacts;
import org.mossbank.server.grading.SaidOfAnswers;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.shared.Figure;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.trial.TriedAnswer;

/** Holds what trials say against what raters say. */
final class GradedComputation {
    private static final double LEVEL = 0.95;

    /** A list beyond this is no list to look through; what is counted is counted over all. */
    private static final int MOST_LISTED = 2_000;

    private final Basis basis;
    private final Map<AnswerId, AnswerFacts> facts;

    private GradedComputation(Basis basis) {
        this.basis = basis;
        this.facts = basis.answers.stream().collect(Collectors.toMap(AnswerFacts::id, Function.identity()));
    }

    /**
     * What it is made of, as it stood at one moment.
     *
     * @param criterion that trials speak for; absent if there is none
     * @param grades    on it, of first sheets sent in for sound prompts
     * @param answers   to sound prompts
     * @param whys      what raters said against trials
     * @param seen      what raters saw, and what they had graded by then
     * @param names     of everybody, as others read them
     * @param inputs    of their own that each gave
     */
    record Basis(
            RaterTerms.TrialsShown shown,
            @Nullable CriterionView criterion,
            List<SentGrade> grades,
            List<AnswerFacts> answers,
            Map<AnswerId, TriedAnswer> tried,
            List<SaidOfAnswers.WhySaid> whys,
            List<TrialSeen.Seen> seen,
            Map<AccountId, String> names,
            Map<AccountId, Integer> inputs) {}

    static GradedEvidence of(Basis basis) {
        GradedComputation all = new GradedComputation(basis);
        List<GradedEvidence.ContradictionView> contradictions = all.contradictions();
        List<SaidOfAnswers.WhySaid> otherwise = all.otherwise();
        return new GradedEvidence(
                basis.criterion == null ? null : basis.criterion.name(),
                contradictions.size(),
                contradictions.stream().limit(MOST_LISTED).toList(),
                otherwise.size(),
                otherwise.stream().limit(MOST_LISTED).map(all::otherwise).toList(),
                all.seen(),
                all.people());
    }

    private List<GradedEvidence.ContradictionView> contradictions() {
        CriterionView criterion = basis.criterion;
        if (criterion == null) {
            return List.of();
        }
        List<GradedEvidence.ContradictionView> found = new ArrayList<>();
        for (SentGrade grade : basis.grades) {
            TriedAnswer tried = basis.tried.get(grade.answerId());
            AnswerFacts of = facts.get(grade.answerId());
            if (tried != null && of != null) {
                tried.last()
                        .ifPresent(last -> Contradiction.of(
                                        grade.level() + 1, criterion.levels().size(), last.trials())
                                .ifPresent(sort -> found.add(new GradedEvidence.ContradictionView(
                                        of.id(),
                                        of.promptId(),
                                        of.candidateId(),
                                        of.attempt(),
                                        Require.known(basis.names, grade.raterId()),
                                        grade.level(),
                                        criterion.highestLevel(),
                                        sort,
                                        last.worst().outcome()))));
            }
        }
        return found;
    }

    private List<SaidOfAnswers.WhySaid> otherwise() {
        return basis.whys.stream().filter(w -> facts.containsKey(w.answerId())).toList();
    }

    private GradedEvidence.SaidOtherwise otherwise(SaidOfAnswers.WhySaid said) {
        AnswerFacts of = Require.known(facts, said.answerId());
        return new GradedEvidence.SaidOtherwise(
                of.id(),
                of.promptId(),
                of.candidateId(),
                of.attempt(),
                Require.known(basis.names, said.raterId()),
                said.works(),
                SightOfTrials.proposed(basis.tried.get(said.answerId())).orElse(null),
                said.why());
    }

    private record Cell(AccountId rater, AnswerId answer) {}

    private GradedEvidence.SeenByRaters seen() {
        Map<Cell, Integer> now = new HashMap<>();
        basis.grades.forEach(g -> now.put(new Cell(g.raterId(), g.answerId()), g.level()));
        List<Rating> before = new ArrayList<>();
        List<Rating> after = new ArrayList<>();
        Set<PromptId> seenPrompts = new HashSet<>();
        int changed = 0;
        int raised = 0;
        int count = 0;
        Set<Cell> known = new HashSet<>();
        for (TrialSeen.Seen seen : basis.seen) {
            Cell cell = new Cell(seen.raterId(), seen.answerId());
            Integer level = now.get(cell);
            // A second sheet of the same rater shows what they have seen already.
            if (level == null || !known.add(cell)) {
                continue;
            }
            count++;
            Optional.ofNullable(facts.get(seen.answerId())).ifPresent(f -> seenPrompts.add(f.promptId()));
            if (seen.level() != null) {
                before.add(rating(cell, seen.level()));
                after.add(rating(cell, level));
                changed += Objects.equals(seen.level(), level) ? 0 : 1;
                raised += level > seen.level() ? 1 : 0;
            }
        }
        return new GradedEvidence.SeenByRaters(
                basis.shown,
                count,
                changed,
                raised,
                alpha(before),
                alpha(after),
                alpha(over(seenPrompts::contains)),
                alpha(over(p -> !seenPrompts.contains(p))));
    }

    private List<Rating> over(Predicate<PromptId> wanted) {
        return basis.grades.stream()
                .filter(g -> Optional.ofNullable(facts.get(g.answerId()))
                        .filter(f -> wanted.test(f.promptId()))
                        .isPresent())
                .map(g -> rating(new Cell(g.raterId(), g.answerId()), g.level()))
                .toList();
    }

    private static Rating rating(Cell cell, int level) {
        return new Rating(cell.answer.toString(), cell.rater.toString(), level);
    }

    /** With the interval that the agreement of a study has, prompts left out one by one. */
    private Figure alpha(List<Rating> ratings) {
        if (ratings.isEmpty() || basis.criterion == null) {
            return Figure.of(Estimate.undefined(Reason.NO_DATA));
        }
        RatingMatrix matrix = RatingMatrix.ofLevels(ratings, basis.criterion.highestLevel());
        Map<String, String> prompts = new HashMap<>();
        facts.values().forEach(f -> prompts.put(f.id().toString(), f.promptId().toString()));
        KrippendorffAlpha alpha = KrippendorffAlpha.of(matrix, unit -> prompts.getOrDefault(unit, unit));
        return Figure.of(alpha.value(Metric.ORDINAL), alpha.interval(Metric.ORDINAL, LEVEL));
    }

    private List<GradedEvidence.TriedByPerson> people() {
        Map<AccountId, Integer> repairs = new HashMap<>();
        basis.tried.values().forEach(t -> t.repairs().forEach(r -> repairs.merge(r.by().authorId(), 1, Integer::sum)));
        Set<AccountId> people = new HashSet<>(repairs.keySet());
        people.addAll(basis.inputs.keySet());
        return people.stream()
                .map(p -> new GradedEvidence.TriedByPerson(
                        Require.known(basis.names, p), basis.inputs.getOrDefault(p, 0), repairs.getOrDefault(p, 0)))
                .sorted(java.util.Comparator.comparing(GradedEvidence.TriedByPerson::name))
                .toList();
    }
}
