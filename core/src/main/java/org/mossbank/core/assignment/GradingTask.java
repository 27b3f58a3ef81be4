package org.mossbank.core.assignment;

import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.SortedSet;
import java.util.TreeSet;
import org.mossbank.core.estimate.Require;

/**
 * What is to be graded, by whom.
 *
 * @param raters  who may grade
 * @param prompts each prompt with its answers
 * @param barred  what a rater must not grade: their own prompts and their own baseline's answers
 */
public record GradingTask(SortedSet<String> raters, List<PromptTask> prompts, Set<Bar> barred) {
    /** @throws IllegalArgumentException if a prompt occurs twice */
    public GradingTask {
        raters = java.util.Collections.unmodifiableSortedSet(new TreeSet<>(raters));
        prompts = prompts.stream()
                .sorted(java.util.Comparator.comparing(PromptTask::prompt))
                .toList();
        barred = Set.copyOf(barred);
        Require.that(
                prompts.stream().map(PromptTask::prompt).distinct().count() == prompts.size(),
                "prompts",
                "must each occur once",
                prompts.size());
    }

    /** A prompt, its kind and its answers. */
    public record PromptTask(String prompt, String kind, List<Entry> answers) {
        public PromptTask {
            answers = answers.stream()
                    .sorted(java.util.Comparator.comparing(Entry::answer))
                    .toList();
        }
    }

    /** An answer and whose it is. */
    public record Entry(String answer, String candidate) {}

    /** A rater and a prompt or an answer that they must not grade. */
    public record Bar(String rater, String promptOrAnswer) {}

    /** A task in which nobody is barred from anything. */
    public static GradingTask open(SortedSet<String> raters, List<PromptTask> prompts) {
        return new GradingTask(raters, prompts, Set.of());
    }

    /** Who may grade each answer. */
    Map<String, SortedSet<String>> allowedByAnswer() {
        Map<String, SortedSet<String>> allowed = new HashMap<>();
        for (PromptTask prompt : prompts) {
            for (Entry entry : prompt.answers()) {
                TreeSet<String> may = new TreeSet<>(raters);
                may.removeIf(r -> isBarred(r, prompt.prompt()) || isBarred(r, entry.answer()));
                allowed.put(entry.answer(), may);
            }
        }
        return allowed;
    }

    boolean isBarred(String rater, String promptOrAnswer) {
        return barred.contains(new Bar(rater, promptOrAnswer));
    }
}
