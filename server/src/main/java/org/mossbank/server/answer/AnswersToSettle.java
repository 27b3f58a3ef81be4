package org.mossbank.server.answer;

import java.util.Optional;
import org.mossbank.server.ids.StudyId;

/** What a later module still has to settle about answers before raters may see them. */
public interface AnswersToSettle {
    /** In words, as the end of "Answers: …"; empty if nothing is open. */
    Optional<String> toSettle(StudyId study);
}
