package org.mossbank.server.prompt;

import org.mossbank.server.ids.KindId;

/** A kind of prompt in a study: explanation, refactoring, debugging, review, or one that the lead added. */
public record KindView(KindId id, String key, String name) {}
