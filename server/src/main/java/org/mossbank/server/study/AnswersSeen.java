package org.mossbank.server.study;

import java.util.UUID;

/** Whether a study has anything yet that its lead would have seen; later modules implement it. */
public interface AnswersSeen {
    boolean isAnythingSeen(UUID study);
}
