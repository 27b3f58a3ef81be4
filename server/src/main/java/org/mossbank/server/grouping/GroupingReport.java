package org.mossbank.server.grouping;

import java.util.List;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.shared.Figure;

/**
 * Where candidates stand among some of the prompts. It decides nothing: the fewer the prompts, the more of what is seen is chance, and the
 * more groups are looked at, the likelier one of them misleads.
 *
 * @param groupings those in which prompts differ
 */
record GroupingReport(List<Grouping> groupings) {
    /** What prompts are told apart by. */
    enum By {
        KIND,
        SIZE,
        AREA,
        LANGUAGE,
        /** Vague against exact, of those that have more than one wording. */
        WORDING
    }

    /**
     * @param by     what prompts are told apart by
     * @param groups those with most prompts first; of areas a prompt may be in several
     */
    record Grouping(By by, List<PromptGroup> groups) {}

    /**
     * @param name      of the kind, size, area, language or wording
     * @param prompts   in it
     * @param standings highest first
     */
    record PromptGroup(String name, int prompts, List<GroupStanding> standings) {}

    /** @param adjusted score of 100, adjusted for prompts and raters of the group */
    record GroupStanding(CandidateId candidateId, Figure adjusted, int scores) {}
}
