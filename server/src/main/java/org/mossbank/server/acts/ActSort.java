package org.mossbank.server.acts;

/** What somebody did that may change an outcome. */
public enum ActSort {
    BRIEF_CLOSED,
    BRIEF_REOPENED,
    RUBRIC_PUBLISHED,
    MASKING_CHANGED,
    CONSIDERATIONS_CHANGED,
    ROUND_OPENED,
    LOOK_TAKEN,
    ROUND_CLOSED,
    ROUND_REOPENED,
    PROMPT_SET_ASIDE,
    PROMPT_TAKEN_UP,
    SHEET_WITHDRAWN,
    SHEET_GIVEN_BACK,
    SHEET_HANDED_OVER,
    SPLIT_SETTLED,
    SPLIT_LEFT_OPEN,
    SPLIT_OPENED_AGAIN
}
