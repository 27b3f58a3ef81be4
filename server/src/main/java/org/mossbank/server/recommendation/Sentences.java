package org.mossbank.server.recommendation;

import java.util.List;
import java.util.function.Function;
import org.mossbank.core.decision.Decision;
import org.mossbank.core.decision.Finding;

/** Puts an outcome and its reasons into words, the same for screen, memo and interface. */
final class Sentences {
    private final Function<String, String> candidate;
    private final FindingWords words;

    /** @param candidate names of candidates by key */
    Sentences(Function<String, String> candidate, FindingWords words) {
        this.candidate = candidate;
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
        List<String> safe = safeOnes(decision);
        if (safe.size() == 1) {
            return safe.get(0) + " is a safe choice. None is shown to be better by a margin that matters.";
        }
        return joined(safe) + " are safe choices. None is shown to be better by a margin that matters."
                + (leader.isEmpty() ? " Let other facts decide." : " The tie-break prefers " + leader + ".");
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

    private static String joined(List<String> names) {
        int last = names.size() - 1;
        return last < 1
                ? String.join("", names)
                : String.join(", ", names.subList(0, last)) + " and " + names.get(last);
    }

    RecommendationReport.FindingView view(Finding finding) {
        return words.of(finding).view();
    }
}
