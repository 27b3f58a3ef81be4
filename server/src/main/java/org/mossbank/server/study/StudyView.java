package org.mossbank.server.study;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.StudyId;

/**
 * A study as other modules see it.
 *
 * @param briefClosedAt absent while the brief is open
 * @param forecast      what it was thought to show when the brief was closed; absent if nobody asked
 */
public record StudyView(
        StudyId id,
        String title,
        Brief brief,
        @Nullable Instant briefClosedAt,
        @Nullable KeptForecast forecast,
        long seed,
        Instant createdAt) {
    public boolean isBriefClosed() {
        return briefClosedAt != null;
    }
}
