package org.mossbank.server.run;

import java.util.ArrayList;
import java.util.List;
import java.util.function.BiFunction;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/** What a run asks, in which order. */
final class RunPlan {
    private RunPlan() {}

    /**
     * One prompt for one candidate, once.
     *
     * @param group   cells of the same prompt and repetition, from 0
     * @param attempt which attempt it will be, from 1
     */
    record Cell(int group, PromptId promptId, CandidateId candidateId, int attempt) {}

    /**
     * Prompt by prompt, all candidates together, then all once more. Who is asked first goes round, so that no candidate always
     * has the others' load behind it.
     *
     * @param last the highest attempt that is there, 0 if none
     */
    static List<Cell> of(
            List<PromptId> prompts,
            List<CandidateId> candidates,
            int attempts,
            boolean onlyMissing,
            BiFunction<PromptId, CandidateId, Integer> last) {
        List<Cell> cells = new ArrayList<>();
        int group = 0;
        for (int repeat = 1; repeat <= attempts; repeat++) {
            for (int p = 0; p < prompts.size(); p++) {
                int before = cells.size();
                for (int c = 0; c < candidates.size(); c++) {
                    CandidateId candidate = candidates.get((c + p + repeat - 1) % candidates.size());
                    int there = last.apply(prompts.get(p), candidate);
                    if (!onlyMissing || there + repeat <= attempts) {
                        cells.add(new Cell(group, prompts.get(p), candidate, there + repeat));
                    }
                }
                group += cells.size() > before ? 1 : 0;
            }
        }
        return cells;
    }
}
