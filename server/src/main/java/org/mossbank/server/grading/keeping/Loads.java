package org.mossbank.server.grading.keeping;

import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;

/** Who has how many sheets that count, now and after some of them change hands. */
final class Loads {
    /** Sheets of a rater, before and after. */
    record LoadView(AccountId raterId, int before, int after) {}

    private final Map<AccountId, Integer> before = new HashMap<>();
    private final Map<AccountId, Integer> after;
    private final Map<PromptId, Integer> ofPrompt = new HashMap<>();

    /** @param others raters who may have none */
    Loads(List<Sheet> counting, Collection<AccountId> others) {
        others.forEach(r -> before.put(r, 0));
        counting.forEach(s -> {
            before.merge(s.raterId(), 1, Integer::sum);
            ofPrompt.merge(s.promptId(), 1, Integer::sum);
        });
        after = new HashMap<>(before);
    }

    void give(Sheet sheet, AccountId to) {
        after.merge(sheet.raterId(), -1, Integer::sum);
        after.merge(to, 1, Integer::sum);
    }

    void add(PromptId prompt, AccountId to) {
        after.merge(to, 1, Integer::sum);
        ofPrompt.merge(prompt, 1, Integer::sum);
    }

    void drop(Sheet sheet) {
        after.merge(sheet.raterId(), -1, Integer::sum);
        ofPrompt.merge(sheet.promptId(), -1, Integer::sum);
    }

    int now(AccountId rater) {
        return after.getOrDefault(rater, 0);
    }

    List<LoadView> views() {
        return before.keySet().stream()
                .sorted(Comparator.comparing(AccountId::toString))
                .map(r -> new LoadView(r, before.getOrDefault(r, 0), now(r)))
                .toList();
    }

    /** Raters of the prompt that has fewest. */
    int fewest() {
        return ofPrompt.values().stream().mapToInt(Integer::intValue).min().orElse(0);
    }

    /** Raters of the prompt that has most. */
    int most() {
        return ofPrompt.values().stream().mapToInt(Integer::intValue).max().orElse(0);
    }
}
