package org.mossbank.server.memo.document;

import java.util.Collection;
import java.util.Comparator;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.function.UnaryOperator;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.ids.AccountId;

/** How a memo calls people: by name, by a letter, or not at all. */
final class MemoNames {
    private static final int LETTERS = 26;
    private static final String NOBODY = "a rater";
    private static final String LEAD = "the lead";

    private final Map<AccountId, String> labels;
    private final UnaryOperator<String> inText;

    private MemoNames(Map<AccountId, String> labels, UnaryOperator<String> inText) {
        this.labels = labels;
        this.inText = inText;
    }

    /**
     * @param raters everybody who grades
     * @param leads  names of leads; in what is told they are called the lead wherever raters go without a name
     */
    static MemoNames of(NamesShown shown, Map<AccountId, AccountView> raters, Collection<String> leads) {
        Map<AccountId, String> labels = new HashMap<>();
        // Ids say nothing of names, so their order does not either.
        List<AccountView> ordered = raters.values().stream()
                .sorted(Comparator.comparing(r -> r.id().toString()))
                .toList();
        for (AccountView rater : ordered) {
            labels.put(
                    rater.id(),
                    switch (shown) {
                        case BY_NAME -> rater.displayName();
                        case PSEUDONYM -> "Rater " + letters(labels.size());
                        case NOT_AT_ALL -> NOBODY;
                    });
        }
        if (shown == NamesShown.BY_NAME) {
            return new MemoNames(labels, UnaryOperator.identity());
        }
        Map<String, String> called = new HashMap<>();
        ordered.forEach(r -> called.put(r.displayName(), Require.known(labels, r.id())));
        leads.forEach(l -> called.put(l, LEAD));
        return new MemoNames(labels, replacing(called));
    }

    /** A, B, …, Z, AA, AB, … */
    private static String letters(int n) {
        String last = String.valueOf((char) ('A' + n % LETTERS));
        return n < LETTERS ? last : letters(n / LETTERS - 1) + last;
    }

    private static UnaryOperator<String> replacing(Map<String, String> called) {
        String any = called.keySet().stream()
                .filter(n -> !n.isBlank())
                .sorted(Comparator.comparingInt(String::length).reversed())
                .map(Pattern::quote)
                .collect(Collectors.joining("|"));
        if (any.isEmpty()) {
            return UnaryOperator.identity();
        }
        Pattern names = Pattern.compile("(?<![\\p{L}\\p{N}])(?:" + any + ")(?![\\p{L}\\p{N}])");
        return text -> names.matcher(text).replaceAll(m -> Matcher.quoteReplacement(Require.known(called, m.group())));
    }

    String of(AccountId rater) {
        return labels.getOrDefault(rater, NOBODY);
    }

    /** A text with names as they are to be. */
    String in(String text) {
        return inText.apply(text);
    }
}
