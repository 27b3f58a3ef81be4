package org.mossbank.server.progress;

/** The steps of the job, in their order. */
public enum Step {
    BRIEF,
    PROMPTS,
    CANDIDATES,
    ANSWERS,
    RUBRIC,
    GRADING,
    AGREEMENT,
    RECOMMENDATION
}
