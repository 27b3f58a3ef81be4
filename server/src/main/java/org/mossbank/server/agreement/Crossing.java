package org.mossbank.server.agreement;

import java.util.List;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.PromptId;

/**
 * What two raters gave the same answers on one criterion.
 *
 * @param counts  how often the first gave the row's level and the second the column's; levels from 0 up
 * @param answers those of one cell, the first {@link #MOST_ANSWERS} by prompt; none unless a cell is asked for
 */
record Crossing(List<List<Integer>> counts, List<CrossedAnswer> answers) {
    static final int MOST_ANSWERS = 200;

    /** An answer that two raters gave these levels. */
    record CrossedAnswer(AnswerId answerId, PromptId promptId, String promptTitle, CandidateId candidateId) {}

    /** A level of each of the two. */
    record Cell(int first, int second) {}
}
