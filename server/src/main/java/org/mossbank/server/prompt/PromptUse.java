package org.mossbank.server.prompt;

import java.util.UUID;

/** Says whether a prompt has answers, so that it is not pulled from under them. A later module answers. */
public interface PromptUse {
    boolean isPromptAnswered(UUID study, UUID prompt);
}
