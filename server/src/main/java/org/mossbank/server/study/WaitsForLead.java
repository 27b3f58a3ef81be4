package org.mossbank.server.study;

import java.util.Collection;
import java.util.Map;
import org.mossbank.server.ids.StudyId;

/** What waits for a lead in their studies, in a line; modules tell it of the stage whose work is theirs. */
public interface WaitsForLead {
    RoundStage.Stage stage();

    /** Of each of these, however many, with as many questions; a study without a line has nothing that waits. */
    Map<StudyId, String> of(Collection<StudyId> studies);
}
