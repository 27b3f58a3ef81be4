package org.mossbank.core.planning;

import java.util.ArrayList;
import java.util.List;
import java.util.OptionalInt;
import java.util.SortedSet;
import java.util.TreeSet;
import org.mossbank.core.assignment.Assignment;
import org.mossbank.core.assignment.GradingTask;
import org.mossbank.core.assignment.PlanOptions;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;

/**
 * The size of a study that is being thought of.
 *
 * @param promptsByKind  prompts of each kind, at least one kind, at least one prompt each
 * @param candidates     at least 2
 * @param attempts       answers of one candidate to one prompt, at least 1
 * @param raters         at least 2
 * @param ratersAnAnswer 1 … raters
 */
public record PlannedStudy(List<Integer> promptsByKind, int candidates, int attempts, int raters, int ratersAnAnswer) {

    /** @throws IllegalArgumentException if a number is out of its range */
    public PlannedStudy {
        promptsByKind = List.copyOf(promptsByKind);
        Require.that(!promptsByKind.isEmpty(), "promptsByKind", "must not be empty", promptsByKind);
        promptsByKind.forEach(n -> Require.atLeast("promptsByKind", 1, n));
        Require.atLeast("candidates", 2, candidates);
        Require.atLeast("attempts", 1, attempts);
        Require.atLeast("raters", 2, raters);
        Require.that(
                ratersAnAnswer >= 1 && ratersAnAnswer <= raters,
                "ratersAnAnswer",
                "must lie in [1, " + raters + "]",
                ratersAnAnswer);
    }

    public int prompts() {
        return promptsByKind.stream().mapToInt(Integer::intValue).sum();
    }

    /** Answers that have to be graded, each as often as it has raters. */
    public int gradings() {
        return prompts() * candidates * attempts * ratersAnAnswer;
    }

    /** The kind of the prompts named by {@link #task}. */
    static String kindOf(String prompt) {
        return prompt.substring(0, prompt.indexOf('-'));
    }

    static int numberOfKind(String prompt) {
        return Integer.parseInt(kindOf(prompt).substring(1));
    }

    static String rater(int number) {
        return String.format("r%03d", number);
    }

    static int numberOf(String rater) {
        return Integer.parseInt(rater.substring(1));
    }

    /** Which rater grades which prompt: the plan that such a study would have. */
    List<SheetPlan> sheets() {
        return Assignment.plan(task(), new PlanOptions(OptionalInt.of(ratersAnAnswer), 0), Resamples.generator(1));
    }

    private GradingTask task() {
        SortedSet<String> names = new TreeSet<>();
        for (int r = 0; r < raters; r++) {
            names.add(rater(r));
        }
        List<GradingTask.PromptTask> prompts = new ArrayList<>();
        for (int k = 0; k < promptsByKind.size(); k++) {
            for (int p = 0; p < promptsByKind.get(k); p++) {
                String prompt = String.format("k%02d-%03d", k, p);
                // Which candidates answer does not matter for who grades; one answer stands for all.
                prompts.add(new GradingTask.PromptTask(
                        prompt, "k" + k, List.of(new GradingTask.Entry(prompt + "-all", "all"))));
            }
        }
        return GradingTask.open(names, prompts);
    }
}
