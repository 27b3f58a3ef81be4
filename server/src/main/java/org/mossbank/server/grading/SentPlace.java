package org.mossbank.server.grading;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CandidateId;

/**
 * Where and when an answer was graded, on a sheet that was sent in.
 *
 * @param sheetPlace of the sheet among the rater's own, from 0
 * @param place      of the answer on the sheet, from 0
 * @param guess      who the rater thought wrote it; absent without an idea, or if nobody asked
 */
public record SentPlace(
        AccountId raterId,
        AnswerId answerId,
        int sheetPlace,
        int place,
        Instant sentAt,
        @Nullable CandidateId guess) {}
