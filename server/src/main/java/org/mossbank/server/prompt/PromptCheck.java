package org.mossbank.server.prompt;

import java.util.List;
import org.mossbank.server.ids.StudyId;

/** Looks for what usually goes wrong with a prompt; later modules add what only they can see. */
public interface PromptCheck {
    List<PromptWarning> check(StudyId study, PromptView prompt);
}
