package org.mossbank.server.figures;

import org.mossbank.server.ids.StudyId;

/** Figures that are worked out before somebody asks, where a study comes in with all its grades. */
public interface WorkedOutAhead {
    /** Works them out and keeps them. */
    void workOut(StudyId study);
}
