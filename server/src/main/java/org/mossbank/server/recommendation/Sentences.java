package org.mossbank.server.recommendation;

import java.util.ArrayList;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.function.Function;
import java.util.stream.Collector;
import java.util.stream.Collectors;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.Finding;

/** Puts an outcome and its reasons into words, the same for screen, memo and interface. */
final class Sentences {
    private final Function<String, String> candidate;
    private final Function<String, String> kind;
    private final FindingWords words;

    /**
     * @param candidate names of candidates by key
     * @param kind      names of kinds by key, in a sentence
     */
    Sentences(Function<String, String> candidate, Function<String, String> kind, FindingWords words) {
        this.candidate = candidate;
        this.kind = kind;
        this.words = words;
    }

    String headline(Decision decision) {
        List<String> unsure = decision.findings().stream()
                .filter(Finding.AgreementUncertain.class::isInstance)
                .map(f -> words.of(f).view().criterion())
                .toList();
        return outcome(decision)
                + (unsure.isEmpty() ? "" : " How far raters agree on " + joined(unsure) + " is not sure.");
    }

    private String outcome(Decision decision) {
        String leader = decision.leader().map(candidate).orElse("");
        return switch (decision.outcome()) {
            case RECOMMENDED ->
                "We recommend " + leader + (isAheadByLess(decision) ? ": it is ahead, but by less than matters." : ".");
            case SAFE_CHOICES -> safe(decision, leader);
            case BY_KIND -> byKind(decision);
            case UNDECIDED -> "Undecided between " + joined(openOnes(decision)) + ".";
            case WITHHELD ->
                "No recommendation yet: " + words.of(decision.findings().get(0)).gap() + ".";
        };
    }

    /** Whether some other is certain to lie less than the margin behind. */
    private static boolean isAheadByLess(Decision decision) {
        return decision.findings().stream().anyMatch(Finding.BelowMargin.class::isInstance);
    }

    private String safe(Decision decision, String leader) {
        List<Finding.Safe> safe = found(decision, Finding.Safe.class);
        String names = joined(safeOnes(decision));
        String worst = safe.stream()
                .map(f -> FindingWords.points(Math.max(0, f.shortfall())))
                .collect(joining());
        if (safe.size() == 1) {
            return names + " is a safe choice: at worst " + worst
                    + " points below the best. None is shown to be better by a margin that matters.";
        }
        return names + " are safe choices: at worst " + worst
                + " points below the best. None is shown to be better by a margin that matters."
                + (leader.isEmpty()
                        ? " Let other facts decide."
                        : " The tie-break prefers " + preferred(decision, leader));
    }

    private static String preferred(Decision decision, String leader) {
        return found(decision, Finding.TieBroken.class).stream()
                .findFirst()
                .map(t -> leader + ": it " + FindingWords.lessThanNext(t) + ".")
                .orElse(leader + ".");
    }

    private String byKind(Decision decision) {
        List<String> parts = new ArrayList<>();
        found(decision, Finding.BestOfKind.class)
                .forEach(f -> parts.add(
                        "For " + kind.apply(f.kind()) + " we recommend " + candidate.apply(f.candidate()) + "."));
        Map<String, List<String>> safe = found(decision, Finding.SafeInKind.class).stream()
                .collect(Collectors.groupingBy(
                        Finding.SafeInKind::kind,
                        LinkedHashMap::new,
                        Collectors.mapping(f -> candidate.apply(f.candidate()), Collectors.toList())));
        safe.forEach((in, names) -> parts.add("For " + kind.apply(in) + " " + joined(names)
                + (names.size() == 1 ? " is a safe choice." : " are safe choices.")));
        return "No candidate for all kinds. " + String.join(" ", parts);
    }

    private static <F extends Finding> List<F> found(Decision decision, Class<F> sort) {
        return decision.findings().stream()
                .filter(sort::isInstance)
                .map(sort::cast)
                .toList();
    }

    private static Collector<CharSequence, ?, String> joining() {
        return Collectors.collectingAndThen(
                Collectors.toList(),
                list -> joined(list.stream().map(String::valueOf).toList()));
    }

    private List<String> safeOnes(Decision decision) {
        return decision.findings().stream()
                .filter(Finding.Safe.class::isInstance)
                .map(f -> candidate.apply(((Finding.Safe) f).candidate()))
                .toList();
    }

    private List<String> openOnes(Decision decision) {
        return decision.findings().stream()
                .filter(Finding.NotSafe.class::isInstance)
                .map(f -> candidate.apply(((Finding.NotSafe) f).candidate()))
                .toList();
    }

    static String joined(List<String> names) {
        int last = names.size() - 1;
        return last < 1
                ? String.join("", names)
                : String.join(", ", names.subList(0, last)) + " and " + names.get(last);
    }

    RecommendationReport.FindingView view(Finding finding) {
        return words.of(finding).view();
    }
}
