package org.mossbank.server.agreement;

import org.jspecify.annotations.Nullable;
import org.mossbank.core.diagnosis.Narrowing;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.KindId;
import org.mossbank.server.ids.PromptId;

/**
 * What is looked at; what is absent leaves all of it in.
 *
 * @param criterion that levels and raters are compared on
 * @param prompt    and its other wordings
 * @param rater     pairs of grades of which one is theirs
 * @param levels    pairs of grades at these two
 */
record NarrowTo(
        CriterionId criterion,
        @Nullable KindId kind,
        @Nullable PromptId prompt,
        @Nullable AccountId rater,
        Narrowing.@Nullable Levels levels) {}
