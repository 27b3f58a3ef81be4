package org.mossbank.server.reconciliation;

import java.util.Comparator;
import java.util.IntSummaryStatistics;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.mossbank.core.agreement.Split;
import org.mossbank.server.grading.SentGrade;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;

/** Answers and criteria on which raters lie so far apart that it is a split. */
public final class Splits {
    private Splits() {}

    /** An answer on a criterion. */
    public record Place(AnswerId answerId, CriterionId criterionId) {}

    /** Widest first, then in a stable order. */
    static List<Place> of(List<SentGrade> grades) {
        return distances(grades).entrySet().stream()
                .filter(e -> e.getValue() >= Split.LEAST_DISTANCE)
                .sorted(Map.Entry.<Place, Integer>comparingByValue()
                        .reversed()
                        .thenComparing(e -> e.getKey().toString(), Comparator.naturalOrder()))
                .map(Map.Entry::getKey)
                .toList();
    }

    /** How many splits the original grades make that have no settled grade. */
    public static int unsettled(List<SentGrade> grades, List<Reconciliations.Settled> settled) {
        Map<Place, Integer> distances = distances(grades);
        settled.forEach(s -> distances.remove(new Place(s.answerId(), s.criterionId())));
        return (int) distances.values().stream()
                .filter(d -> d >= Split.LEAST_DISTANCE)
                .count();
    }

    private static Map<Place, Integer> distances(List<SentGrade> grades) {
        Map<Place, IntSummaryStatistics> levels = grades.stream()
                .collect(Collectors.groupingBy(
                        g -> new Place(g.answerId(), g.criterionId()), Collectors.summarizingInt(SentGrade::level)));
        return levels.entrySet().stream()
                .collect(Collectors.toMap(
                        Map.Entry::getKey,
                        e -> e.getValue().getMax() - e.getValue().getMin()));
    }
}
