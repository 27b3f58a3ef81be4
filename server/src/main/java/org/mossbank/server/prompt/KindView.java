package org.mossbank.server.prompt;

import java.util.UUID;

/** A kind of prompt in a study: explanation, refactoring, debugging, review, or one that the lead added. */
public record KindView(UUID id, String key, String name) {}
