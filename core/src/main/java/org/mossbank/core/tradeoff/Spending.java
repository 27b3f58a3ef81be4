package org.mossbank.core.tradeoff;

import java.util.ArrayList;
import java.util.Collection;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.OptionalDouble;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Reason;
import org.mossbank.core.estimate.StudentMean;

/**
 * What a candidate's answers took: money, time and tokens a prompt, what was paid for nothing, and what one answer that works came to.
 *
 * <p>\[ \bar k_c = \frac{1}{|P|} \sum_{p \in P} \frac{1}{|A_{cp}|} \sum_{a \in A_{cp}} k_{cpa} \] over the prompts \(P\) that every
 * candidate answered, with Student's interval over prompts ({@link StudentMean}); asked twice counts once. What an answer that works
 * came to is the sum of all costs, of failed answers too, over the number that work: on answers of which raters said whether they work,
 * and those that left nothing, which do not.
 *
 * <p>A figure of a candidate is unknown where one of its answers was not measured: written down in part, it would look cheap.
 *
 * @param candidate which
 * @param answers   all of them
 * @param empty     that left nothing to grade
 * @param cost      of an answer to a prompt, in the currency of the answers
 * @param time      of an answer to a prompt, in milliseconds
 * @param tokens    of an answer to a prompt, in and out together
 * @param wasted    money that went into answers that left nothing; undefined where a cost is not known
 * @param judged    answers of which it is known whether they work
 * @param working   of these, those that do as they are
 * @param oneThatWorks money for one answer that works
 */
public record Spending(
        String candidate,
        int answers,
        int empty,
        StudentMean cost,
        StudentMean time,
        StudentMean tokens,
        Estimate wasted,
        int judged,
        int working,
        Estimate oneThatWorks) {
    private static final double LEVEL = 0.95;

    /** Whether an answer's code does what was asked, as it is. */
    public enum Works {
        YES,
        NO,
        /** It left nothing to try. */
        EMPTY,
        /** Nobody said so. */
        NOT_SAID
    }

    /**
     * An answer.
     *
     * @param cost   at least 0; empty where it is not known
     * @param time   milliseconds; empty where it was not measured
     * @param tokens in and out together; empty where they were not counted
     */
    public record Answer(
            String candidate,
            String prompt,
            OptionalDouble cost,
            OptionalDouble time,
            OptionalDouble tokens,
            Works works) {}

    /** @param answers of all that are compared, costs in one currency; one entry a candidate, in alphabetical order */
    public static List<Spending> of(Collection<Answer> answers) {
        Map<String, List<Answer>> byCandidate =
                answers.stream().collect(Collectors.groupingBy(Answer::candidate, TreeMap::new, Collectors.toList()));
        Set<String> common = commonPrompts(byCandidate.values());
        List<Spending> all = new ArrayList<>();
        byCandidate.forEach((candidate, own) -> all.add(of(candidate, own, common)));
        return all;
    }

    /** Prompts that every candidate answered. */
    private static Set<String> commonPrompts(Collection<List<Answer>> byCandidate) {
        Set<String> common = new HashSet<>();
        byCandidate.forEach(own -> own.forEach(a -> common.add(a.prompt())));
        byCandidate.forEach(
                own -> common.retainAll(own.stream().map(Answer::prompt).collect(Collectors.toSet())));
        return common;
    }

    private static Spending of(String candidate, List<Answer> own, Set<String> common) {
        List<Answer> judged =
                own.stream().filter(a -> a.works() != Works.NOT_SAID).toList();
        int working = (int) judged.stream().filter(a -> a.works() == Works.YES).count();
        List<Answer> empty = own.stream().filter(a -> a.works() == Works.EMPTY).toList();
        return new Spending(
                candidate,
                own.size(),
                empty.size(),
                mean(own, common, Answer::cost),
                mean(own, common, Answer::time),
                mean(own, common, Answer::tokens),
                sum(empty),
                judged.size(),
                working,
                working == 0
                        ? Estimate.undefined(Reason.NOTHING_WORKS)
                        : sum(judged).map(x -> x / working));
    }

    private static Estimate sum(List<Answer> some) {
        return some.stream().anyMatch(a -> a.cost().isEmpty())
                ? Estimate.undefined(Reason.NOT_MEASURED)
                : Estimate.of(
                        some.stream().mapToDouble(a -> a.cost().orElseThrow()).sum());
    }

    /** Each prompt weighing alike. */
    private static StudentMean mean(List<Answer> own, Set<String> common, Function<Answer, OptionalDouble> figure) {
        Map<String, List<Answer>> byPrompt = own.stream()
                .filter(a -> common.contains(a.prompt()))
                .collect(Collectors.groupingBy(Answer::prompt, TreeMap::new, Collectors.toList()));
        boolean measured = byPrompt.values().stream()
                .flatMap(List::stream)
                .allMatch(a -> figure.apply(a).isPresent());
        return measured
                ? StudentMean.of(
                        byPrompt.values().stream()
                                .mapToDouble(attempts -> attempts.stream()
                                        .mapToDouble(a -> figure.apply(a).orElseThrow())
                                        .average()
                                        .orElseThrow())
                                .toArray(),
                        LEVEL)
                : StudentMean.undefined(Reason.NOT_MEASURED);
    }
}
