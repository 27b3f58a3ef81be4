package org.mossbank.server.reconciliation;

import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
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
        Map<AnswerId, Map<CriterionId, Levels>> levels = new HashMap<>();
        for (SentGrade grade : grades) {
            levels.computeIfAbsent(grade.answerId(), a -> new HashMap<>())
                    .computeIfAbsent(grade.criterionId(), c -> new Levels())
                    .add(grade.level());
        }
        Map<Place, Integer> distances = new HashMap<>();
        levels.forEach((answer, own) ->
                own.forEach((criterion, l) -> distances.put(new Place(answer, criterion), l.highest - l.lowest)));
        return distances;
    }

    private static final class Levels {
        private int lowest = Integer.MAX_VALUE;
        private int highest = Integer.MIN_VALUE;

        void add(int level) {
            lowest = Math.min(lowest, level);
            highest = Math.max(highest, level);
        }
    }
}
