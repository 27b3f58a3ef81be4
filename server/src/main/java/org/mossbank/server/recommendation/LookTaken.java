package org.mossbank.server.recommendation;

import java.time.Instant;
import org.mossbank.core.decision.Outcome;
import org.mossbank.server.acts.ActSort;
import org.mossbank.server.acts.ActView;

/**
 * A look at how candidates stood before grading had ended.
 *
 * @param number   from 1
 * @param by       name of who took it
 * @param counted  prompts that counted then: each of their answers had as many raters as the rule asks for
 * @param planned  prompts of the study
 * @param headline the outcome in a sentence
 */
public record LookTaken(int number, Instant at, String by, int counted, int planned, Outcome outcome, String headline) {
    /** In a phrase, for the record. */
    String inWords() {
        return "look %d, at %d of %d prompts".formatted(number, counted, planned);
    }

    /** By whoever took it, who knew the names. */
    public ActView asAct() {
        return new ActView(ActSort.LOOK_TAKEN, inWords(), "", by, at, true, null, null);
    }

    /** The share of the information that was there. */
    double information() {
        return (double) counted / planned;
    }
}
