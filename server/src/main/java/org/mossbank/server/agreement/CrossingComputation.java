package org.mossbank.server.agreement;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.rubric.CriterionView;
import org.mossbank.server.rubric.Rubrics;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.stereotype.Component;

/** Crosses the grades of two raters. Linear in the study's grades, which are kept in memory. */
@Component
class CrossingComputation {
    private final Grading grading;
    private final Answers answers;
    private final Prompts prompts;
    private final Rubrics rubrics;
    private final Snapshot snapshot;

    CrossingComputation(Grading grading, Answers answers, Prompts prompts, Rubrics rubrics, Snapshot snapshot) {
        this.grading = grading;
        this.answers = answers;
        this.prompts = prompts;
        this.rubrics = rubrics;
        this.snapshot = snapshot;
    }

    /** @param cell absent unless its answers are wanted */
    Crossing of(StudyId study, CriterionId criterion, AccountId first, AccountId second, Crossing.@Nullable Cell cell) {
        Graded read = snapshot.of(() -> new Graded(levels(study, criterion), grading.sentGrades(study)));
        List<AnswerId> inCell = new ArrayList<>();
        List<List<Integer>> counts = counted(read, criterion, first, second, cell, inCell);
        return new Crossing(counts, inCell.isEmpty() ? List.of() : snapshot.of(() -> listed(study, inCell)));
    }

    /** @param levels of the criterion's scale */
    private record Graded(int levels, List<SentGrade> grades) {}

    private int levels(StudyId study, CriterionId criterion) {
        return rubrics.ofStudy(study).stream()
                        .filter(c -> c.id().equals(criterion))
                        .mapToInt(CriterionView::highestLevel)
                        .findFirst()
                        .orElseThrow(() -> Problem.notFound("This criterion"))
                + 1;
    }

    /** @param inCell gets the answers of the cell */
    private static List<List<Integer>> counted(
            Graded read,
            CriterionId criterion,
            AccountId first,
            AccountId second,
            Crossing.@Nullable Cell cell,
            List<AnswerId> inCell) {
        int levels = read.levels;
        List<SentGrade> grades = read.grades.stream()
                .filter(g -> g.criterionId().equals(criterion))
                .toList();
        Map<AnswerId, Integer> byFirst = levels(grades, first);
        Map<AnswerId, Integer> bySecond = levels(grades, second);
        int[][] counts = new int[levels][levels];
        byFirst.forEach((answer, given) -> {
            Integer other = bySecond.get(answer);
            if (other != null) {
                counts[given][other]++;
                if (cell != null && cell.first() == given && cell.second() == other) {
                    inCell.add(answer);
                }
            }
        });
        return IntStream.range(0, levels)
                .mapToObj(i -> IntStream.of(counts[i]).boxed().toList())
                .toList();
    }

    private static Map<AnswerId, Integer> levels(List<SentGrade> grades, AccountId rater) {
        Map<AnswerId, Integer> levels = new HashMap<>();
        grades.stream().filter(g -> g.raterId().equals(rater)).forEach(g -> levels.put(g.answerId(), g.level()));
        return levels;
    }

    private List<Crossing.CrossedAnswer> listed(StudyId study, List<AnswerId> ids) {
        Map<PromptId, Prompts.Outline> byId =
                prompts.outlines(study).stream().collect(Collectors.toMap(Prompts.Outline::id, Function.identity()));
        return answers.cells(ids).entrySet().stream()
                .map(e -> new Crossing.CrossedAnswer(
                        e.getKey(),
                        e.getValue().promptId(),
                        Require.known(byId, e.getValue().promptId()).title(),
                        e.getValue().candidateId()))
                .sorted(Comparator.comparing(Crossing.CrossedAnswer::promptTitle)
                        .thenComparing(a -> a.answerId().toString()))
                .limit(Crossing.MOST_ANSWERS)
                .toList();
    }
}
