package org.mossbank.server.grading;

import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;

/**
 * How far grading is, by rater; the lead's view.
 *
 * @param openedAt absent before the round is opened
 */
record GradingProgress(@Nullable Instant openedAt, @Nullable Instant closedAt, List<RaterProgress> raters) {

    /**
     * @param hasPassword whether the rater can sign in, or still needs a link
     * @param remindedAt  when they were reminded last; absent if they never were
     */
    record RaterProgress(
            AccountId raterId,
            String name,
            String signInName,
            boolean hasPassword,
            @Nullable Instant remindedAt,
            List<SheetProgress> sheets) {}

    /**
     * @param place     when its rater gets it, from 1
     * @param calibrates whether it counts nowhere, as raters learn the ruler by it
     * @param takenBack how often its rater took it back after sending it in
     * @param withdrawn why the lead withdrew it; absent unless they did
     */
    record SheetProgress(
            SheetId sheetId,
            PromptId promptId,
            int place,
            boolean repeat,
            boolean calibrates,
            long answers,
            long made,
            long cells,
            long reasons,
            @Nullable Instant sentAt,
            long takenBack,
            @Nullable String withdrawn) {}
}
