package org.mossbank.server.grading;

import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;

/** Who has seen what others gave while grading went on: what they gave themselves stays as it is. */
public interface GradesSeen {
    boolean hasSeenOthers(StudyId study, AccountId rater, PromptId prompt);
}
