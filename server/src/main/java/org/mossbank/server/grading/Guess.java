package org.mossbank.server.grading;

import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A rater's guess of who wrote an answer.
 *
 * @param candidateId absent if the rater was asked and has no idea
 */
public record Guess(@Nullable UUID candidateId) {}
