package org.mossbank.server.prompt;

import java.util.Optional;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Figure;

/** Says how a prompt did in a study. Answered by the module that knows grades. */
public interface PromptHistory {
    /**
     * @param sheets    sheets for it that were sent in
     * @param withinOne share of pairs of grades at most one level apart
     * @param apart     points between the highest and the lowest candidate's mean score
     * @param lowest    the lowest candidate's mean score: where even that is near the top, the prompt is worn out
     */
    record Showing(int sheets, Figure withinOne, Figure apart, Figure lowest) {}

    /** How it did; empty before anybody graded it. */
    Optional<Showing> of(StudyId study, PromptId prompt);
}
