package org.mossbank.server.prompt;

import java.util.UUID;

/** A prompt is about to be removed; what later modules hold of it goes first, in the same transaction. */
public record PromptRemoved(UUID promptId) {}
