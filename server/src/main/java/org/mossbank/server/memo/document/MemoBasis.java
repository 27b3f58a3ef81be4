package org.mossbank.server.memo.document;

import java.time.Instant;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.AccountView;
import org.mossbank.server.acts.ActView;
import org.mossbank.server.agreement.AgreementReport;
import org.mossbank.server.candidate.CandidateView;
import org.mossbank.server.cost.CostReport;
import org.mossbank.server.cost.TeamCostReport;
import org.mossbank.server.evidence.TrialsTold;
import org.mossbank.server.expected.ExpectedReport;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.recommendation.RecommendationReport;
import org.mossbank.server.recommendation.RobustnessReport;
import org.mossbank.server.study.StudyView;

/**
 * What a memo is written from.
 *
 * @param at       when it was read
 * @param prompts  all of the study, those that count nowhere included
 * @param raters   everybody who grades
 * @param leads    their names
 * @param team     what a month would cost; absent where no use is stated
 * @param trials   whether raters saw trials; absent where no answer was tried
 * @param acts     oldest first
 * @param dissents oldest first
 */
public record MemoBasis(
        Instant at,
        StudyView study,
        Grading.RoundState round,
        List<CandidateView> candidates,
        List<PromptView> prompts,
        Map<AccountId, AccountView> raters,
        List<String> leads,
        AgreementReport agreement,
        RecommendationReport report,
        RobustnessReport robustness,
        CostReport costs,
        @Nullable TeamCostReport team,
        ExpectedReport expected,
        TrialsTold.@Nullable Told trials,
        List<ActView> acts,
        List<Dissent> dissents) {

    /** What a rater holds against it. */
    public record Dissent(AccountId raterId, String text) {}

    CandidateView candidate(CandidateId id) {
        return candidates.stream().filter(c -> c.id().equals(id)).findFirst().orElseThrow();
    }

    /** Its name, with its version where two share one. */
    String name(CandidateId id) {
        CandidateView own = candidate(id);
        boolean alone =
                candidates.stream().filter(c -> c.name().equals(own.name())).count() == 1;
        return alone ? own.name() : own.name() + " (" + own.content().version() + ", " + own.settingsLine() + ")";
    }

    String key(CandidateId id) {
        return candidate(id).key();
    }
}
