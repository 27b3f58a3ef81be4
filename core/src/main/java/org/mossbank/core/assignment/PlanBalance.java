package org.mossbank.core.assignment;

import java.util.ArrayList;
import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mossbank.core.estimate.Require;

/**
 * How even a plan is, and what agreement can be computed from it. Repeats count for self-agreement alone.
 *
 * <p>Exposure: \[ \max_r \max_{c, d} \, | m_{rc} - m_{rd} | \] with \(m_{rc}\) how many answers of candidate \(c\) rater \(r\)
 * misses. Counts of answers; 0 where every rater gets all of each prompt.
 *
 * @param sheetsByRater   sheets each rater gets, repeats included
 * @param ratersAnAnswer  the fewest and the most raters of an answer
 * @param sharedAnswers   answers that each two raters both grade
 * @param exposure        over raters, the greatest difference between how many answers of two candidates they miss on
 *                        the prompts they get; what they must not grade, such as their own baseline, is not missed
 * @param answers         answers in all
 * @param paired          answers with two raters or more: what alpha and AC2 rest on
 * @param complete        answers that every rater grades: what ICC and Kendall's W rest on
 * @param repeated        answers that come twice to a rater: what self-agreement rests on
 * @param connected       whether shared answers tie all raters together, so that strict and kind ones can be told apart
 */
public record PlanBalance(
        SortedMap<String, Integer> sheetsByRater,
        Range ratersAnAnswer,
        List<Pair> sharedAnswers,
        int exposure,
        int answers,
        int paired,
        int complete,
        int repeated,
        boolean connected) {

    /** Least and greatest of some counts. */
    public record Range(int least, int most) {
        static Range of(Collection<Integer> counts) {
            return new Range(
                    counts.stream().mapToInt(Integer::intValue).min().orElse(0),
                    counts.stream().mapToInt(Integer::intValue).max().orElse(0));
        }
    }

    /** How many answers two raters share. */
    public record Pair(String first, String second, int answers) {}

    public static PlanBalance of(GradingTask task, List<SheetPlan> plan) {
        SortedMap<String, Integer> load = new TreeMap<>();
        task.raters().forEach(r -> load.put(r, 0));
        Map<String, Set<String>> ratersOf = new HashMap<>();
        task.prompts().forEach(p -> p.answers().forEach(a -> ratersOf.put(a.answer(), new HashSet<>())));
        int repeated = 0;
        for (SheetPlan sheet : plan) {
            load.merge(sheet.rater(), 1, Integer::sum);
            repeated += sheet.repeat() ? sheet.answers().size() : 0;
            sheet.answers().forEach(a -> Require.known(ratersOf, a).add(sheet.rater()));
        }
        List<Integer> counts = ratersOf.values().stream().map(Set::size).toList();
        List<Pair> pairs = pairs(List.copyOf(task.raters()), ratersOf.values());
        return new PlanBalance(
                load,
                Range.of(counts),
                pairs,
                exposure(task, plan),
                counts.size(),
                (int) counts.stream().filter(c -> c >= 2).count(),
                (int) counts.stream().filter(c -> c == task.raters().size()).count(),
                repeated,
                isConnected(List.copyOf(task.raters()), pairs));
    }

    private static List<Pair> pairs(List<String> raters, Collection<Set<String>> ratersOfAnswers) {
        List<Pair> pairs = new ArrayList<>();
        for (int i = 0; i < raters.size(); i++) {
            for (int j = i + 1; j < raters.size(); j++) {
                String first = raters.get(i);
                String second = raters.get(j);
                int shared = (int) ratersOfAnswers.stream()
                        .filter(s -> s.contains(first) && s.contains(second))
                        .count();
                pairs.add(new Pair(first, second, shared));
            }
        }
        pairs.sort(Comparator.comparing(Pair::first).thenComparing(Pair::second));
        return pairs;
    }

    private static int exposure(GradingTask task, List<SheetPlan> plan) {
        Map<String, GradingTask.PromptTask> prompts = new HashMap<>();
        task.prompts().forEach(p -> prompts.put(p.prompt(), p));
        int widest = 0;
        for (String rater : task.raters()) {
            Map<String, Integer> missed = new HashMap<>();
            for (SheetPlan sheet : plan) {
                if (sheet.rater().equals(rater) && !sheet.repeat()) {
                    Require.known(prompts, sheet.prompt()).answers().stream()
                            .filter(e -> !task.isBarred(rater, e.answer()))
                            .forEach(e -> missed.merge(
                                    e.candidate(), sheet.answers().contains(e.answer()) ? 0 : 1, Integer::sum));
                }
            }
            Range range = Range.of(missed.values());
            widest = Math.max(widest, range.most() - range.least());
        }
        return widest;
    }

    private static boolean isConnected(List<String> raters, List<Pair> pairs) {
        if (raters.isEmpty()) {
            return false;
        }
        Set<String> reached = new HashSet<>(Set.of(raters.get(0)));
        boolean grew = true;
        while (grew) {
            grew = false;
            for (Pair pair : pairs) {
                if (pair.answers() > 0 && reached.contains(pair.first()) != reached.contains(pair.second())) {
                    grew |= reached.add(pair.first()) | reached.add(pair.second());
                }
            }
        }
        return reached.size() == raters.size();
    }
}
