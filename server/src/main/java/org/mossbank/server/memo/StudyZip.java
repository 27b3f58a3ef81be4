package org.mossbank.server.memo;

import org.mossbank.server.ids.StudyId;

/** Writes a study out as an archive. Answered by the module that knows how. */
public interface StudyZip {
    /** The bytes of the zip; the same study gives the same. */
    byte[] of(StudyId study);
}
