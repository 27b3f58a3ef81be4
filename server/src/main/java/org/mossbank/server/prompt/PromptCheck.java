package org.mossbank.server.prompt;

import java.util.List;
import java.util.UUID;

/** Looks for what usually goes wrong with a prompt; later modules add what only they can see. */
public interface PromptCheck {
    List<PromptWarning> check(UUID study, PromptView prompt);
}
