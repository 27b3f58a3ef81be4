package org.mossbank.server.grading.desk;

import java.time.Clock;
import java.util.List;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.GradesSeen;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetEvent;
import org.mossbank.server.grading.sheet.SheetHistory;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Sending a sheet in, and taking it back. */
@Service
@Transactional
class SheetSending {
    private final SheetRepository sheets;
    private final SheetFrames frames;
    private final Prompts prompts;
    private final Clock clock;
    private final SheetHistory history;
    private final SheetCompleteness completeness;
    private final Repeats repeats;
    private final List<GradesSeen> seen;

    SheetSending(
            SheetRepository sheets,
            SheetFrames frames,
            Prompts prompts,
            Clock clock,
            SheetHistory history,
            SheetCompleteness completeness,
            Repeats repeats,
            List<GradesSeen> seen) {
        this.seen = seen;
        this.repeats = repeats;
        this.completeness = completeness;
        this.history = history;
        this.sheets = sheets;
        this.frames = frames;
        this.prompts = prompts;
        this.clock = clock;
    }

    /** What comes after a sheet was sent in; without a sheet, all are done. */
    record Sent(@Nullable SheetId nextSheetId) {}

    /**
     * Sends a complete sheet in and names the next one left. Sending it twice is the same as once.
     *
     * @throws Problem 409 naming what is missing if it is not complete
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public Sent send(SheetId sheetId) {
        Sheet sheet = history.lock(frames.of(sheetId).studyId(), sheetId);
        if (!sheet.isSent()) {
            sheet.refuseIfWithdrawn();
            completeness.require(sheet);
            sheet.send(clock.instant());
            history.happened(sheet, SheetEvent.Sort.SENT, "");
        }
        Set<PromptId> sound = Set.copyOf(prompts.gradedIds(sheet.studyId()));
        List<Sheet> own = sheets.findByStudyIdAndRaterIdOrderByPlace(sheet.studyId(), sheet.raterId());
        List<Sheet> left = Repeats.told(own, sound).stream()
                .filter(s -> !s.isSent() && !s.isWithdrawn() && sound.contains(s.promptId()))
                .toList();
        return new Sent(left.stream()
                .filter(s -> s.place() > sheet.place())
                .findFirst()
                .or(() -> left.stream().findFirst())
                .map(Sheet::id)
                .orElse(null));
    }

    /** Opens a sent sheet again; until it is sent in again it does not count. */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public void takeBack(SheetId sheetId) {
        Sheet sheet = history.lock(frames.of(sheetId).studyId(), sheetId);
        if (sheet.isSent()) {
            sheet.refuseIfWithdrawn();
            repeats.refuseFirstMeanwhile(sheet);
            if (seen.stream().anyMatch(s -> s.hasSeenOthers(sheet.studyId(), sheet.raterId(), sheet.promptId()))) {
                throw new Problem(
                        ProblemType.TOO_LATE,
                        "You have seen what others gave, so your grades stay as they are. Where you stand now can be said with each split.");
            }
            sheet.takeBack();
            history.happened(sheet, SheetEvent.Sort.TAKEN_BACK, "");
        }
    }
}
