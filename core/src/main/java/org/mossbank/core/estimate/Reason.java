package org.mossbank.core.estimate;

/** Why a statistic does not exist for the data at hand. */
public enum Reason {
    NO_DATA("there are no grades"),
    NO_PAIRS("no answer has grades from two raters"),
    ONE_LEVEL_ONLY("all grades are at one and the same level"),
    NOT_CONNECTED("the grades do not tie all candidates, prompts and raters together"),
    NO_FREEDOM_LEFT("there are as many unknowns as grades"),
    UNDEFINED_IN_EVERY_RESAMPLE("it is undefined in every resample"),
    TOO_FEW_TO_RESAMPLE("there is only one prompt of each kind, or one rater"),
    UNEQUAL_NUMBERS("answers have unequal numbers of grades"),
    LEVEL_NOT_USED("this level was never given, or it alone"),
    TOO_FEW_COMPLETE("fewer than two answers have grades from all of two raters or more"),
    NO_VARIANCE("there is no variance left to compare with"),
    ALL_TIED("each order ties all of them"),
    TOO_FEW_LEVELS("there is only one candidate, prompt or rater"),
    NOT_COMPLETE("not every rater graded every candidate on every prompt"),
    NO_FINITE_MAXIMUM("the likelihood has no finite maximum"),
    TOO_FEW_PAIRS("there are fewer than two complete pairs"),
    CONSTANT("one of the two never changes"),
    NOTHING_IN_COMMON("no rater graded both on one prompt"),
    ALL_ALIKE("all grades of each answer are alike"),
    NO_P_VALUE("there is no p value for this test"),
    NOT_ASKED("it was not asked for"),
    NOT_MEASURED("some of its answers were not measured"),
    NOTHING_WORKS("no answer is known to work");

    private final String words;

    Reason(String words) {
        this.words = words;
    }

    /** The reason as part of a sentence, without a full stop. */
    public String words() {
        return words;
    }
}
