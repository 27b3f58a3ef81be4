package org.mossbank.server.acts;

import org.mossbank.server.ids.StudyId;

/** What whoever acts can see meanwhile. Answered by the module that says who may see what. */
public interface Sight {
    /** Which candidate wrote what. */
    boolean knowsNames(StudyId study);

    /** How candidates stand. */
    boolean seesStandings(StudyId study);
}
