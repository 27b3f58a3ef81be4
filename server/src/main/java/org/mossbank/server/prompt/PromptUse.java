package org.mossbank.server.prompt;

import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;

/** Says whether a prompt has answers, so that it is not pulled from under them. A later module answers. */
public interface PromptUse {
    boolean isPromptAnswered(StudyId study, PromptId prompt);
}
