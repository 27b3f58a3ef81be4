package org.mossbank.server.collection;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.answer.Outcome;

/**
 * An answer as a file has it, not yet matched with the study.
 *
 * @param file      the file, or the path in the zip
 * @param line      where it begins, from 1
 * @param prompt    key or title
 * @param candidate key or name
 * @param attempt   absent for the next one
 */
record IncomingAnswer(
        String file,
        int line,
        String prompt,
        String candidate,
        @Nullable Integer attempt,
        Outcome outcome,
        String text,
        List<FollowUp> followUps,
        Measures measures) {
    /** All of it as one text. */
    String wholeText() {
        return new Answers.NewAnswer("", prompt, candidate, 1, outcome, text, followUps, measures).wholeText();
    }
}
