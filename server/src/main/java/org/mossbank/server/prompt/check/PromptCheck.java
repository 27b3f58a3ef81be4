package org.mossbank.server.prompt.check;

import java.util.List;
import java.util.function.Function;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.prompt.PromptView;

/** Looks for what usually goes wrong with a prompt; later modules add what only they can see. */
public interface PromptCheck {
    /** What is said of each prompt of a study. What it takes is read here, once, however many prompts there are. */
    Function<PromptView, List<PromptWarning>> of(StudyId study);
}
