package org.mossbank.server.study;

import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * A study as other modules see it.
 *
 * @param briefClosedAt absent while the brief is open
 */
public record StudyView(
        UUID id, String title, Brief brief, @Nullable Instant briefClosedAt, long seed, Instant createdAt) {
    public boolean isBriefClosed() {
        return briefClosedAt != null;
    }
}
