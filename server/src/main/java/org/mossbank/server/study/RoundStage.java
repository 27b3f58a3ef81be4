package org.mossbank.server.study;

import java.util.Collection;
import java.util.Map;
import org.mossbank.server.ids.StudyId;

/** Says how far a study's round is. Answered by the module that runs rounds, so that none is asked by an earlier one. */
public interface RoundStage {
    Stage of(StudyId study);

    /** Of each of these, however many, with one question. */
    Map<StudyId, Stage> ofAll(Collection<StudyId> studies);

    /** From the first line of the brief to the last grade. */
    enum Stage {
        /** No round was opened: everything can be changed. */
        PREPARING,
        /** Raters grade: what they grade stays as it is. */
        GRADING,
        /** Grading is over: names, grades and results are open to raters. */
        CLOSED
    }
}
