package org.mossbank.server.study;

import org.mossbank.server.ids.StudyId;

/** Whether a study has anything yet that its lead would have seen; later modules implement it. */
public interface AnswersSeen {
    boolean isAnythingSeen(StudyId study);
}
