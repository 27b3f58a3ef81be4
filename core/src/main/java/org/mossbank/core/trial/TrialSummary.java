package org.mossbank.core.trial;

import java.util.List;

/**
 * How one trial ended as a whole: as its item that ended worst, tests counted. Those that may fail as they did before are not.
 *
 * @param passed of what was asked of it, builds left out
 * @param asked  so many, builds left out; 0 if nothing but a build was asked
 */
public record TrialSummary(TrialOutcome outcome, int passed, int asked) {

    /**
     * @param items in their order
     * @throws IllegalArgumentException if there is none
     */
    public static TrialSummary of(List<CheckItem> items) {
        TrialOutcome worst = items.stream()
                .filter(i -> i.counts() || items.stream().noneMatch(CheckItem::counts))
                .map(CheckItem::outcome)
                .min(TrialOutcome::compareTo)
                .orElseThrow(() -> new IllegalArgumentException("items are some: none"));
        List<CheckItem> asked = items.stream()
                .filter(i -> i.sort() != CheckItem.Sort.BUILD && i.counts())
                .toList();
        int passed = (int) asked.stream().filter(i -> i.outcome().passed()).count();
        return new TrialSummary(worst, passed, asked.size());
    }
}
