package org.mossbank.server.rubric;

import java.time.Instant;
import org.jspecify.annotations.Nullable;

/**
 * A version of a rubric in a list.
 *
 * @param publishedAt absent while it is a draft
 * @param note        what changed, in the lead's words
 * @param inUse       whether the round is graded by it
 */
public record VersionView(int number, @Nullable Instant publishedAt, String note, boolean inUse) {}
