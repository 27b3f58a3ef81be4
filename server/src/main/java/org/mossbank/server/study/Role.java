package org.mossbank.server.study;

/** What a person is in a study. */
public enum Role {
    LEAD,
    RATER
}
