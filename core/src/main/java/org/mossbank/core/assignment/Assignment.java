package org.mossbank.core.assignment;

import java.util.ArrayList;
import java.util.Collections;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.random.RandomGenerator;
import java.util.random.RandomGenerator.SplittableGenerator;
import org.mossbank.core.estimate.Require;

/**
 * Who grades what, in which order: every rater gets their prompts in an order of their own, and each sheet has its own
 * order of answers. A sheet holds all answers to its prompt, because they are judged side by side, but for those that its
 * rater must not grade.
 *
 * <p>For each rater the orders are balanced: over their sheets each candidate stands at each place about equally often. A
 * sheet's order is the cheapest assignment of answers to places, where a place costs the more the more often this rater
 * has seen the candidate there. When all prompts have the same candidates, counts never differ by more than one: the
 * places a candidate has had least often form a regular bipartite graph, which always has a perfect matching (König
 * 1916).
 */
public final class Assignment {
    /** How much one more showing at a place weighs against the random tie-break in [0, 1). */
    /** Sheets between a sheet and its repeat, where there are so many. */
    private static final int LEAST_DISTANCE = 2;

    private static final double SHOWING = 1000;

    private Assignment() {}

    /**
     * Draws the plan. The same seed, task and options give the same plan, in whatever order prompts and answers come.
     *
     * @param random seeded with the study's seed
     * @return the sheets by rater, then place
     */
    public static List<SheetPlan> plan(GradingTask task, PlanOptions options, SplittableGenerator random) {
        Map<String, List<GradingTask.PromptTask>> byRater = new HashMap<>();
        List<List<String>> sets = raterSets(task, options, random);
        for (int p = 0; p < sets.size(); p++) {
            for (String rater : sets.get(p)) {
                byRater.computeIfAbsent(rater, r -> new ArrayList<>())
                        .add(task.prompts().get(p));
            }
        }
        List<SheetPlan> plan = new ArrayList<>();
        for (String rater : task.raters()) {
            SplittableGenerator own = random.split();
            plan.addAll(sheets(rater, byRater.getOrDefault(rater, List.of()), task, options, own));
        }
        return plan;
    }

    private static List<List<String>> raterSets(GradingTask task, PlanOptions options, SplittableGenerator random) {
        int most = task.raters().size();
        int least = options.ratersAnAnswer().orElse(most);
        // With everybody on everything there is nothing to choose, and nothing is drawn.
        return least >= most
                ? task.prompts().stream().map(p -> List.copyOf(task.raters())).toList()
                : RaterSets.choose(task, least, random.split());
    }

    private static List<SheetPlan> sheets(
            String rater,
            List<GradingTask.PromptTask> prompts,
            GradingTask task,
            PlanOptions options,
            SplittableGenerator random) {
        List<GradingTask.PromptTask> mine = new ArrayList<>();
        for (GradingTask.PromptTask prompt : prompts) {
            List<GradingTask.Entry> allowed = prompt.answers().stream()
                    .filter(a -> !task.isBarred(rater, prompt.prompt()) && !task.isBarred(rater, a.answer()))
                    .toList();
            if (!allowed.isEmpty()) {
                mine.add(new GradingTask.PromptTask(prompt.prompt(), prompt.kind(), allowed));
            }
        }
        Collections.shuffle(mine, new Random(random.nextLong()));
        Map<String, int[]> shown = new HashMap<>();
        List<SheetPlan> sheets = new ArrayList<>();
        for (GradingTask.PromptTask prompt : mine) {
            List<String> order = order(prompt.answers(), shown, random);
            sheets.add(new SheetPlan(rater, prompt.prompt(), sheets.size(), false, order));
        }
        return withRepeats(sheets, options.repeatShare(), random);
    }

    /** Puts some of the first half's sheets into the second half again, in another order and a third of all sheets later. */
    private static List<SheetPlan> withRepeats(List<SheetPlan> sheets, double share, RandomGenerator random) {
        int repeats = (int) Math.round(share * sheets.size());
        int half = (sheets.size() + 1) / 2;
        if (repeats == 0) {
            return sheets;
        }
        List<SheetPlan> early = new ArrayList<>(sheets.subList(0, half));
        Collections.shuffle(early, new Random(random.nextLong()));
        List<SheetPlan> late = new ArrayList<>(sheets.subList(half, sheets.size()));
        Collections.shuffle(late, new Random(random.nextLong()));
        int distance = Math.max(LEAST_DISTANCE, sheets.size() / 3);
        for (SheetPlan first : early.subList(0, Math.min(repeats, half))) {
            int from = Math.min(late.size(), Math.max(0, first.place() + distance - half));
            // What comes in before an earlier repeat only puts that one further off.
            late.add(
                    from + random.nextInt(late.size() - from + 1),
                    new SheetPlan(first.rater(), first.prompt(), 0, true, otherOrder(first.answers(), random)));
        }
        List<SheetPlan> all = new ArrayList<>(sheets.subList(0, half));
        all.addAll(late);
        List<SheetPlan> placed = new ArrayList<>();
        for (SheetPlan s : all) {
            placed.add(new SheetPlan(s.rater(), s.prompt(), placed.size(), s.repeat(), s.answers()));
        }
        return placed;
    }

    /** A rotation: no answer stands where it stood before. */
    private static List<String> otherOrder(List<String> order, RandomGenerator random) {
        List<String> rotated = new ArrayList<>(order);
        if (order.size() > 1) {
            Collections.rotate(rotated, 1 + random.nextInt(order.size() - 1));
        }
        return rotated;
    }

    private static List<String> order(
            List<GradingTask.Entry> entries, Map<String, int[]> shown, RandomGenerator random) {
        int n = entries.size();
        double[][] cost = new double[n][n];
        for (int i = 0; i < n; i++) {
            int[] counts = shown.computeIfAbsent(entries.get(i).candidate(), c -> new int[0]);
            for (int place = 0; place < n; place++) {
                int before = place < counts.length ? counts[place] : 0;
                // Squares of counts, so that evening out always pays: (b + 1)² - b² = 2b + 1.
                cost[i][place] = SHOWING * (2 * before + 1) + random.nextDouble();
            }
        }
        int[] places = CheapestMatching.of(cost);
        String[] order = new String[n];
        for (int i = 0; i < n; i++) {
            order[places[i]] = entries.get(i).answer();
            String candidate = entries.get(i).candidate();
            int[] counts = Require.known(shown, candidate);
            if (counts.length <= places[i]) {
                counts = java.util.Arrays.copyOf(counts, places[i] + 1);
                shown.put(candidate, counts);
            }
            counts[places[i]]++;
        }
        return List.of(order);
    }
}
