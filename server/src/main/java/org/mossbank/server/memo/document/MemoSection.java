package org.mossbank.server.memo.document;

/** The parts of a memo, in the order in which they are read. */
public enum MemoSection {
    SUMMARY("On one page"),
    QUESTION("The question"),
    RULE("The rule, and when it was closed"),
    CANDIDATES("Candidates and their settings"),
    PROMPTS("What they were asked"),
    RATERS("Who graded, and who was blind"),
    AGREEMENT("How far raters agreed"),
    OUTCOME("The outcome and its reasons"),
    ROBUSTNESS("What it hangs on"),
    TRADE_OFFS("Cost and time"),
    FACTS("Facts that no grade covers"),
    LIMITS("Limits, and where candidates were not treated alike"),
    ACTS("What was done on the way"),
    EXPECTATIONS("What was expected"),
    DISSENT("Where a rater sees it otherwise"),
    APPENDIX("Every answer’s grades");

    /** What a lead may write in one, in characters. */
    public static final int LONGEST_WORDS = 20_000;

    private final String title;

    MemoSection(String title) {
        this.title = title;
    }

    public String title() {
        return title;
    }
}
