package org.mossbank.server.reconciliation;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;
import org.mossbank.server.ids.StudyId;

/** Splits in lists. */
final class SplitViews {
    private SplitViews() {}

    /** What a split waits for from the reader. */
    enum WaitsFor {
        NOTHING,
        /** Something was said that they have not read. */
        READING,
        /** Where they stand now. */
        STANCE,
        /** A look at the answer, blind. */
        LOOK,
        /** All have said where they stand, and it is not one level: somebody must close it. */
        CLOSING
    }

    /**
     * A split that concerns the reader.
     *
     * @param title    of its prompt; empty for a blind look
     * @param words    how much was said
     */
    record OwnSplit(
            UUID id,
            StudyId studyId,
            String studyTitle,
            String title,
            String criterion,
            SplitClosing.State state,
            int words,
            WaitsFor waitsFor) {}

    /**
     * The reader's splits over all studies.
     *
     * @param later how many more there are, to be read once what is being graded is sent in
     * @param more  whether there are splits of earlier studies, though maybe none that concerns the reader
     */
    record OwnSplits(List<OwnSplit> splits, int later, boolean more) {}

    /**
     * A split as the lead lists it.
     *
     * @param level    the settled grade, in levels; absent unless it is settled
     * @param standing how many raters have said where they stand
     */
    record TakenUp(
            UUID id,
            AnswerId answerId,
            CriterionId criterionId,
            SplitClosing.State state,
            SplitClosing.@Nullable How how,
            @Nullable Double level,
            int words,
            int standing) {}

    /** How many were taken up. */
    record TookUp(int count) {}

    /** Somebody who could look at an answer blind: they have no sheet with it, and it is not their own. */
    record MayLook(AccountId raterId, String name) {}

    /** What somebody is asked to look at who sees no grades. */
    record BlindLook(
            UUID id,
            String studyTitle,
            SplitPage.SplitPrompt prompt,
            SplitPage.SplitCriterion criterion,
            String answer,
            @Nullable Integer level,
            String reason,
            boolean open) {}
}
