package org.mossbank.server.archive;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Invitation;
import org.mossbank.server.ids.StudyId;

/**
 * What came of an archive; links are shown this once.
 *
 * @param notes      what to look at before raters begin, in sentences
 * @param thereSince when the same file made this study, if it was brought in before; then nothing was done now
 */
record Brought(
        StudyId studyId,
        String title,
        List<Invitation> invitations,
        List<String> notes,
        @Nullable Instant thereSince) {
    Brought withNotes(List<String> all) {
        return new Brought(studyId, title, invitations, all, thereSince);
    }
}
