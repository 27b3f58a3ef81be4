package org.mossbank.server.agreement;

import java.util.List;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;

/** Where raters part, by criterion. */
public record DiagnosisReport(List<OnCriterion> criteria) {

    /**
     * @param forOtherRaters alpha with the interval for other raters of the sort as well as other prompts
     * @param prompts       what each adds to disagreement, largest first
     * @param raterPairs    what each two raters add, largest first
     * @param levelPairs    what each two levels add, largest first
     * @param merged        alpha if a level and the next one were one, largest first
     * @param withoutPrompt alpha without each prompt
     * @param withoutRater  alpha without each rater
     * @param useOfScale    how often each rater gave each level
     * @param drift         how each rater's grades move from sheet to sheet, against the others'
     */
    public record OnCriterion(
            CriterionId criterionId,
            String name,
            Figure alpha,
            Figure forOtherRaters,
            List<PromptShare> prompts,
            List<RaterShare> raterPairs,
            List<LevelShare> levelPairs,
            List<MergedLevels> merged,
            List<WithoutPrompt> withoutPrompt,
            List<WithoutRater> withoutRater,
            List<RaterUse> useOfScale,
            List<RaterDrift> drift) {}

    /** @param share of all disagreement on the criterion, in [0, 1] */
    public record PromptShare(PromptId promptId, String title, double share, int pairs) {}

    public record RaterShare(AccountId firstId, AccountId secondId, double share, int pairs) {}

    public record LevelShare(int lower, int higher, double share, int pairs) {}

    /** @param lower the lower of two neighbouring levels */
    public record MergedLevels(int lower, Figure alpha) {}

    public record WithoutPrompt(PromptId promptId, String title, Figure alpha) {}

    public record WithoutRater(AccountId raterId, Figure alpha) {}

    /** @param counts by level */
    public record RaterUse(AccountId raterId, List<Integer> counts) {}

    /** @param slope levels a sheet */
    public record RaterDrift(AccountId raterId, Figure slope, int grades) {}
}
