package org.mossbank.server.answer;

import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.study.Studies;
import org.springframework.stereotype.Component;

/** What an answer must be to be taken in. Called within the transaction of whoever writes it. */
@Component
class AnswerAdmission {
    private final Studies studies;
    private final FollowUpRules rules;

    AnswerAdmission(Studies studies, FollowUpRules rules) {
        this.studies = studies;
        this.rules = rules;
    }

    /**
     * Holds the study in preparation until the transaction ends.
     *
     * @throws Problem 409 once the round is open
     */
    void requirePreparing(StudyId study) {
        studies.requirePreparing(study);
    }

    /**
     * The same for an answer with follow-ups.
     *
     * @throws Problem 400 if there are more follow-ups than the study's rule allows; 409 once the round is open
     */
    void require(StudyId study, int followUps) {
        requirePreparing(study);
        rules.require(study, followUps);
    }

    /** @throws Problem 400 if a complete answer says nothing */
    static void requireText(Outcome outcome, String text) {
        if (outcome == Outcome.COMPLETE && text.isBlank()) {
            throw Problem.invalid("text", "must be there, as the answer is complete");
        }
    }
}
