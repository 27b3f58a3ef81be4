package org.mossbank.core.estimate;

/** Why a statistic does not exist for the data at hand. */
public enum Reason {
    NO_DATA("there are no grades"),
    NO_PAIRS("no answer has grades from two raters"),
    ONE_LEVEL_ONLY("all grades are at one and the same level"),
    NOT_CONNECTED("the grades do not tie all candidates, prompts and raters together"),
    NO_FREEDOM_LEFT("there are as many unknowns as grades"),
    UNDEFINED_IN_EVERY_RESAMPLE("it is undefined in every resample"),
    TOO_FEW_TO_RESAMPLE("there is only one prompt or one rater to resample");

    private final String words;

    Reason(String words) {
        this.words = words;
    }

    /** The reason as part of a sentence, without a full stop. */
    public String words() {
        return words;
    }
}
