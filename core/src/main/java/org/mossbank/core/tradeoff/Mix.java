package org.mossbank.core.tradeoff;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.TreeMap;
import java.util.stream.Collectors;
import org.mossbank.core.comparison.PromptGroups;
import org.mossbank.core.comparison.ScoredCell;
import org.mossbank.core.comparison.Standings;
import org.mossbank.core.estimate.Estimate;
import org.mossbank.core.estimate.Interval;
import org.mossbank.core.estimate.Resamples;

/**
 * What using more than one candidate would gain over the best single one, in points, for other prompts and other raters.
 *
 * <p>A <i>second opinion</i> is the better of two answers to each prompt, as the raters judge on average: \[ g_{pr} = y_{c^*(p), p, r} -
 * y_{bpr} \] with \(b\) the single candidate of the highest mean and \(c^*(p)\) the better of the pair by the grades of the others
 * than rater \(r\), so that nobody's own noise picks the winner that it then rewards. A <i>choice by kind</i> takes for each prompt the
 * candidate that is best on the other prompts of its kind. The gain is the crossed mean of \(g\) ({@link Standings}): a pair's
 * gain can be nothing or less.
 *
 * @param candidates who is used: two, or one a kind in the order of kinds
 * @param kinds      the kind of each, where they are chosen by kind; else empty
 * @param gain       over the best single one
 * @param interval   of the gain
 */
public record Mix(List<String> candidates, List<String> kinds, Estimate gain, Interval interval) {
    private static final String MIX = "mix";
    private static final String SINGLE = "single";

    public Mix {
        candidates = List.copyOf(candidates);
        kinds = List.copyOf(kinds);
    }

    /** The pair whose second opinions gain most; empty with fewer than three candidates, or without a rater beside another. */
    public static Optional<Mix> bestPair(List<ScoredCell> cells, PromptGroups groups, double level) {
        Scores scores = new Scores(cells);
        List<Mix> all = new ArrayList<>();
        List<String> names = scores.names;
        for (int i = 0; i < names.size(); i++) {
            for (int j = i + 1; j < names.size(); j++) {
                List<String> pair = List.of(names.get(i), names.get(j));
                mix(scores.mixed(c -> scores.better(pair, c)), groups, level)
                        .map(d -> new Mix(pair, List.of(), d.estimate(), d.interval()))
                        .ifPresent(all::add);
            }
        }
        return all.stream().max(Comparator.comparingDouble(m -> m.gain().value().orElse(Double.NEGATIVE_INFINITY)));
    }

    /** One candidate a kind; empty with one kind. */
    public static Optional<Mix> byKind(List<ScoredCell> cells, PromptGroups groups, double level) {
        Scores scores = new Scores(cells);
        Map<String, List<ScoredCell>> kinds = cells.stream()
                .collect(Collectors.groupingBy(
                        c -> groups.kindOf().apply(c.prompt()), TreeMap::new, Collectors.toList()));
        if (kinds.size() < 2) {
            return Optional.empty();
        }
        List<String> chosen =
                kinds.values().stream().map(k -> best(means(k)).orElseThrow()).toList();
        Map<String, String> byPrompt = new TreeMap<>();
        kinds.values()
                .forEach(k -> k.stream()
                        .map(ScoredCell::prompt)
                        .distinct()
                        .forEach(p -> best(means(k.stream()
                                        .filter(c -> !groups.familyOf()
                                                .apply(c.prompt())
                                                .equals(groups.familyOf().apply(p)))
                                        .toList()))
                                .ifPresent(c -> byPrompt.put(p, c))));
        return mix(scores.mixed(c -> Optional.ofNullable(byPrompt.get(c.prompt()))), groups, level)
                .map(d -> new Mix(chosen, List.copyOf(kinds.keySet()), d.estimate(), d.interval()));
    }

    private record Gain(Estimate estimate, Interval interval) {}

    /** The difference of the mix and the single one, seen from the mix. */
    private static Optional<Gain> mix(List<ScoredCell> both, PromptGroups groups, double level) {
        return Standings.of(both, groups, new Standings.Options(0, level), Resamples.generator(0))
                .differences()
                .stream()
                .findFirst()
                .map(d -> {
                    boolean above = d.higher().equals(MIX);
                    Interval interval = !above && d.interval() instanceof Interval.Bounds b
                            ? new Interval.Bounds(-b.high(), -b.low(), b.level())
                            : d.interval();
                    return new Gain(d.estimate().map(x -> above ? x : -x), interval);
                });
    }

    private static Map<String, Double> means(List<ScoredCell> cells) {
        return cells.stream()
                .collect(Collectors.groupingBy(
                        ScoredCell::candidate, TreeMap::new, Collectors.averagingDouble(ScoredCell::score)));
    }

    private static Optional<String> best(Map<String, Double> means) {
        return means.entrySet().stream().max(Map.Entry.comparingByValue()).map(Map.Entry::getKey);
    }

    /** Scores by place. */
    private static final class Scores {
        private record Place(String prompt, String rater) {}

        private final List<String> names;
        private final Map<Place, Map<String, Double>> byPlace;
        private final Map<String, Map<String, List<ScoredCell>>> byPrompt;
        private final String single;

        Scores(List<ScoredCell> cells) {
            names = cells.stream()
                    .map(ScoredCell::candidate)
                    .distinct()
                    .sorted()
                    .toList();
            byPlace = cells.stream()
                    .collect(Collectors.groupingBy(
                            c -> new Place(c.prompt(), c.rater()),
                            Collectors.toMap(ScoredCell::candidate, ScoredCell::score, (a, b) -> (a + b) / 2)));
            byPrompt = cells.stream()
                    .collect(Collectors.groupingBy(ScoredCell::prompt, Collectors.groupingBy(ScoredCell::candidate)));
            single = best(means(cells)).orElse("");
        }

        /** The better of two on a prompt, by everybody else's grades; empty if nobody else graded both. */
        Optional<String> better(List<String> pair, Place place) {
            Map<String, List<ScoredCell>> own = byPrompt.getOrDefault(place.prompt(), Map.of());
            Map<String, Double> means = new TreeMap<>();
            for (String c : pair) {
                own.getOrDefault(c, List.of()).stream()
                        .filter(s -> !s.rater().equals(place.rater()))
                        .mapToDouble(ScoredCell::score)
                        .average()
                        .ifPresent(m -> means.put(c, m));
            }
            return means.size() < pair.size() ? Optional.empty() : best(means);
        }

        /** The scores of the mix and of the single one, where both are known. */
        List<ScoredCell> mixed(java.util.function.Function<Place, Optional<String>> choice) {
            List<ScoredCell> both = new ArrayList<>();
            byPlace.forEach((place, scores) -> choice.apply(place).ifPresent(c -> {
                Double chosen = scores.get(c);
                Double other = scores.get(single);
                if (chosen != null && other != null) {
                    both.add(new ScoredCell(MIX, place.prompt(), place.rater(), chosen));
                    both.add(new ScoredCell(SINGLE, place.prompt(), place.rater(), other));
                }
            }));
            return both;
        }
    }
}
