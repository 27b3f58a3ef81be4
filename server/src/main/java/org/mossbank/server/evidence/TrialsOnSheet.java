package org.mossbank.server.evidence;

import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.CheckItem;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.answer.FileChangeView;
import org.mossbank.server.grading.Works;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.study.RaterTerms;
import org.mossbank.server.trial.TrialResult;
import org.mossbank.server.trial.TrialResult.RepositoryEnd;

/**
 * What a rater may know of the trials of the answers on their sheet: nothing that hints at a candidate can be in here.
 *
 * @param shown      when raters see them, by the brief
 * @param missing    why nothing can be tried now, in words; absent if it can
 * @param takesInput whether programs can be given an input of one's own
 * @param inputsLeft how many more on this sheet
 * @param answers    in their order on the sheet
 */
record TrialsOnSheet(
        RaterTerms.TrialsShown shown,
        @Nullable String missing,
        boolean takesInput,
        int inputsLeft,
        List<TrialOnSheet> answers) {
    TrialsOnSheet {
        answers = List.copyOf(answers);
    }

    /**
     * The trials of one answer.
     *
     * @param awaitsGrade whether it is shown once the answer is graded
     * @param turns       those that were tried, in their order
     * @param result      of the last turn, of several trials the one that ended worst; absent if it was not tried, or is not shown
     * @param repairs     by everybody, oldest first
     * @param proposed    whether its code works, by trial; absent where that is not told
     */
    record TrialOnSheet(
            SheetAnswerId answerId,
            boolean awaitsGrade,
            List<TurnOnSheet> turns,
            @Nullable ResultOnSheet result,
            List<RepairOnSheet> repairs,
            @Nullable Works proposed) {
        TrialOnSheet {
            turns = List.copyOf(turns);
            repairs = List.copyOf(repairs);
        }
    }

    /**
     * @param turn    0 for the first reply, then the follow-ups
     * @param times   how often it was tried
     * @param isFlaky whether it passed once and did not another time
     */
    record TurnOnSheet(int turn, TrialSummary summary, int times, boolean isFlaky) {}

    /** What came of a trial, masked, without what it took. */
    record ResultOnSheet(
            TrialSummary summary,
            List<CheckItem> items,
            List<TrialResult.MessageOfLine> messages,
            String log,
            @Nullable RepositoryEnd repository,
            List<PictureOnSheet> pictures) {
        ResultOnSheet {
            items = List.copyOf(items);
            messages = List.copyOf(messages);
            pictures = List.copyOf(pictures);
        }
    }

    /**
     * A picture of the answer's page; it is fetched by its place.
     *
     * @param width  of the page, in CSS pixels
     * @param height of the page, in CSS pixels
     * @param step   after which it was taken, from 0
     * @param text   that stood on the page; empty if it is held back
     * @param isHeld whether it is held back, as it may name a candidate
     */
    record PictureOnSheet(int width, int height, int step, String text, boolean isHeld) {}

    /**
     * A change that somebody made to the code so that it can be tried.
     *
     * @param isOwn   whether the rater made it
     * @param lines   changed; one that was replaced counts once
     * @param changes file by file, masked
     */
    record RepairOnSheet(RepairId id, boolean isOwn, int lines, TrialSummary summary, List<FileChangeView> changes) {
        RepairOnSheet {
            changes = List.copyOf(changes);
        }
    }

    /** A repair that was just made, and what came of it. */
    record RepairTriedOnSheet(RepairOnSheet repair, ResultOnSheet result) {}
}
