package org.mossbank.server.plan;

import java.util.List;
import org.mossbank.server.ids.AccountId;

/**
 * A plan, how even it is and what can be computed from it.
 *
 * @param exposure greatest difference between how often one rater sees two candidates, where own work is left out
 * @param paired   answers with two raters or more
 * @param complete answers that every rater grades
 * @param repeated answers that come to a rater twice
 * @param unmet    what the round should wait for, in words; it opens all the same with a reason
 * @param missing  what keeps the round from being opened, in words
 * @param notes    what the lead should know before opening it, in words
 */
record PlanView(
        List<RaterLoad> raters,
        int fewestRaters,
        int mostRaters,
        List<PairOverlap> pairs,
        int exposure,
        int answers,
        int paired,
        int complete,
        int repeated,
        boolean connected,
        List<String> missing,
        List<String> unmet,
        List<String> notes) {
    /** @param sheets repeats included */
    record RaterLoad(AccountId raterId, String name, int sheets, int repeats) {}

    record PairOverlap(AccountId firstId, AccountId secondId, int answers) {}
}
