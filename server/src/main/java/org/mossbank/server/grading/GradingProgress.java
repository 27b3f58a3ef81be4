package org.mossbank.server.grading;

import java.time.Instant;
import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * How far grading is, by rater; the lead's view.
 *
 * @param openedAt absent before the round is opened
 */
record GradingProgress(@Nullable Instant openedAt, @Nullable Instant closedAt, List<RaterProgress> raters) {

    /** @param hasPassword whether the rater can sign in, or still needs a link */
    record RaterProgress(
            UUID raterId, String name, String signInName, boolean hasPassword, List<SheetProgress> sheets) {}

    record SheetProgress(
            UUID promptId,
            boolean repeat,
            long made,
            long cells,
            long reasons,
            @Nullable Instant sentAt) {}
}
