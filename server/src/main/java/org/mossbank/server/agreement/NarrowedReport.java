package org.mossbank.server.agreement;

import java.util.List;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.shared.Figure;

/**
 * What parts raters on one criterion, narrowed down. Each list is narrowed by everything but what it is a list of; shares are of the
 * disagreement of their own list.
 *
 * @param cells      every criterion and kind, the other criteria narrowed by the same kind, prompt and rater, not by levels
 * @param prompts    largest first, the first {@link #MOST_PROMPTS}
 * @param levelPairs largest first
 * @param raterPairs largest first
 * @param useOfScale how often each rater gave each level, among answers with two grades or more
 * @param splits     widest first, the first {@link #MOST_SPLITS}: two levels apart or more, or any that got both levels looked at
 * @param splitCount how many there are
 */
record NarrowedReport(
        CriterionId criterionId,
        List<CellPart> cells,
        List<PromptPart> prompts,
        List<LevelPart> levelPairs,
        List<PairPart> raterPairs,
        List<DiagnosisReport.RaterUse> useOfScale,
        List<AgreementReport.SplitView> splits,
        int splitCount) {
    /** More than anybody looks through. */
    static final int MOST_PROMPTS = 100;

    /** More than anybody talks through; the count says how many there are. */
    static final int MOST_SPLITS = 100;

    /**
     * @param share of the criterion's disagreement, in [0, 1]
     * @param pairs of grades
     * @param apart those of them that part
     */
    record CellPart(CriterionId criterionId, KindId kindId, double share, int pairs, int apart) {}

    /**
     * @param share of the disagreement, in [0, 1]
     * @param pairs of grades
     * @param apart those of them that part
     */
    record PromptPart(PromptId promptId, String title, double share, int pairs, int apart) {}

    /**
     * @param share of the disagreement, in [0, 1]
     * @param pairs of grades at the two levels
     */
    record LevelPart(int lower, int higher, double share, int pairs) {}

    /**
     * @param share   of the disagreement, in [0, 1]
     * @param kappa   Cohen's, with quadratic weights, over the answers of the kind and prompt
     * @param answers that both graded
     * @param apart   those of them on which they part
     */
    record PairPart(AccountId firstId, AccountId secondId, double share, Figure kappa, int answers, int apart) {}
}
