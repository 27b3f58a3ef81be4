package org.mossbank.server.prompt.check;

import java.util.List;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;

/** Looks for what usually goes wrong with a prompt; later modules add what only they can see. */
public interface PromptCheck {
    List<PromptWarning> check(StudyId study, PromptView prompt);
}
