package org.mossbank.core.trial;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;

/** Tests of a repository before an answer's change and after it, told apart by their names; of several of one name by their order. */
public final class BeforeAndAfter {
    private BeforeAndAfter() {}

    private record Which(String name, int number) {}

    /**
     * @param before tests as they ended without the answer; none if the repository did not build then
     * @param after  as they ended with it
     * @param wanted names of those that must pass afterwards; none for all
     * @return those after it, each with how it ended before, then those that are not run any more
     */
    public static List<CheckItem> told(List<CheckItem> before, List<CheckItem> after, Set<String> wanted) {
        Map<Which, CheckItem> known = numbered(before);
        List<CheckItem> told = new ArrayList<>();
        numbered(after).forEach((which, item) -> {
            CheckItem was = known.remove(which);
            told.add(item.with(change(was, item, wanted)));
        });
        known.values().stream()
                .filter(was -> was.outcome().passed() || isWanted(was, wanted))
                .map(BeforeAndAfter::gone)
                .forEach(told::add);
        return told;
    }

    private static boolean isWanted(CheckItem test, Set<String> wanted) {
        return wanted.isEmpty() || wanted.contains(test.name());
    }

    private static CheckItem gone(CheckItem was) {
        return CheckItem.ended(was.sort(), was.name(), TrialOutcome.FAILED_TESTS, "it is not run any more")
                .with(was.outcome().passed() ? TestChange.BROKEN : TestChange.STILL_FAILS);
    }

    private static TestChange change(@Nullable CheckItem was, CheckItem now, Set<String> wanted) {
        if (was == null) {
            return TestChange.NEW;
        }
        if (now.outcome().passed()) {
            return was.outcome().passed() ? TestChange.STILL_PASSES : TestChange.MENDED;
        }
        if (was.outcome().passed()) {
            return TestChange.BROKEN;
        }
        return isWanted(now, wanted) ? TestChange.STILL_FAILS : TestChange.MAY_FAIL;
    }

    private static Map<Which, CheckItem> numbered(List<CheckItem> items) {
        Map<String, Integer> seen = new HashMap<>();
        Map<Which, CheckItem> numbered = new LinkedHashMap<>();
        for (CheckItem item : items) {
            numbered.put(new Which(item.name(), seen.merge(item.name(), 1, Integer::sum)), item);
        }
        return numbered;
    }
}
