package org.mossbank.server.recommendation;

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
        String leader = decision.leader().map(candidate).orElse("");
        return switch (decision.outcome()) {
            case RECOMMENDED -> "We recommend " + leader + ".";
            case EQUAL ->
                leader.isEmpty()
                        ? "No two candidates differ by as much as the margin. Let other facts decide."
                        : "No two candidates differ by as much as the margin. The tie-break prefers " + leader + ".";
            case UNDECIDED -> "Undecided. " + leader + " stands highest, but not beyond doubt.";
            case WITHHELD ->
                "No recommendation yet: " + words.of(decision.findings().get(0)).gap() + ".";
        };
    }

    RecommendationReport.FindingView view(Finding finding) {
        return words.of(finding).view();
    }
}
