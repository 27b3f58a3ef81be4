package org.mossbank.server.rubric;

import java.time.Instant;
import java.util.UUID;
import org.jspecify.annotations.Nullable;

/**
 * Another wording of an anchor, beside the one that there is.
 *
 * @param criterion     its key
 * @param criterionName as raters read it
 * @param present       what stands there in the newest version; empty where nothing does
 * @param decidedBy     absent while it waits
 * @param decidedAt     absent while it waits
 * @param rubricVersion the version that it came into; absent unless it was taken
 */
record ProposalView(
        UUID id,
        String criterion,
        String criterionName,
        String kind,
        int level,
        String words,
        String present,
        String why,
        String by,
        Instant at,
        AnchorProposal.State state,
        @Nullable String decidedBy,
        @Nullable Instant decidedAt,
        @Nullable Integer rubricVersion) {}
