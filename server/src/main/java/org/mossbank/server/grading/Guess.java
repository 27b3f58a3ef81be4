package org.mossbank.server.grading;

import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.CandidateId;

/**
 * A rater's guess of who wrote an answer.
 *
 * @param candidateId absent if the rater was asked and has no idea
 */
public record Guess(@Nullable CandidateId candidateId) {}
