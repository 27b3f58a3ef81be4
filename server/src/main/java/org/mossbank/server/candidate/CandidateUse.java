package org.mossbank.server.candidate;

import org.mossbank.server.ids.CandidateId;
import org.mossbank.server.ids.StudyId;

/** Says whether a candidate has answers, so that it is not pulled from under them. A later module answers. */
public interface CandidateUse {
    boolean isCandidateAnswering(StudyId study, CandidateId candidate);
}
