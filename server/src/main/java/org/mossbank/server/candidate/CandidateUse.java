package org.mossbank.server.candidate;

import java.util.UUID;

/** Says whether a candidate has answers, so that it is not pulled from under them. A later module answers. */
public interface CandidateUse {
    boolean isCandidateAnswering(UUID study, UUID candidate);
}
