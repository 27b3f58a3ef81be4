package org.mossbank.server.grading;

import java.util.UUID;

/** A grade on a sheet that was sent in. */
public record SentGrade(UUID raterId, UUID answerId, UUID criterionId, int level) {}
