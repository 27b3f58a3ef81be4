package org.mossbank.server.grading.desk;

import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;

/**
 * A sheet in its rater's list.
 *
 * @param place  when the rater gets it, from 1
 * @param calibration the calibration that it is for; absent where it counts
 * @param made   cells of the grade table that are filled
 * @param cells  cells in all
 * @param sentAt   absent while it is being worked on
 * @param setAside whether the prompt turned out faulty: there is nothing to do
 * @param withdrawn whether the lead withdrew it: there is nothing to do
 */
record SheetSummary(
        SheetId id,
        StudyId studyId,
        String studyTitle,
        String promptTitle,
        String kind,
        int place,
        @Nullable Integer calibration,
        long made,
        long cells,
        @Nullable Instant sentAt,
        boolean roundClosed,
        boolean setAside,
        boolean withdrawn) {}
