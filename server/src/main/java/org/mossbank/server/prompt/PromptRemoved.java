package org.mossbank.server.prompt;

import org.mossbank.server.ids.PromptId;

/** A prompt is about to be removed; what later modules hold of it goes first, in the same transaction. */
public record PromptRemoved(PromptId promptId) {}
