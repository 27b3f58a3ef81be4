package org.mossbank.server.grading.desk;

import java.util.List;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.sheet.GradingChange.Part;
import org.mossbank.server.grading.sheet.Remark;
import org.mossbank.server.grading.sheet.RemarkRepository;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.shared.Problem;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** What a rater notes on answers: of the rubric's kinds, and on lines that are there. */
@Service
@Transactional
class DeskRemarks {
    private final RemarkRepository remarks;
    private final SheetAnswerRepository sheetAnswers;
    private final Answers answers;
    private final SheetFrames frames;
    private final CellChanges cells;

    DeskRemarks(
            RemarkRepository remarks,
            SheetAnswerRepository sheetAnswers,
            Answers answers,
            SheetFrames frames,
            CellChanges cells) {
        this.remarks = remarks;
        this.sheetAnswers = sheetAnswers;
        this.answers = answers;
        this.frames = frames;
        this.cells = cells;
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    public SheetView.Saved setRemark(
            SheetId sheetId, SheetAnswerId answerId, UUID remarkId, DeskRequests.SetRemark request) {
        SheetFrame frame = frames.of(sheetId);
        RemarkContent content = request.remark();
        if (content != null) {
            requireLines(answerId, content.lines());
            if (!content.trait().isBlank() && !frame.hasTrait(content.trait().strip())) {
                throw Problem.invalid("remark.trait", "must be one of the rubric's: " + content.trait());
            }
        }
        return cells.change(
                new CellChanges.Spot(frame, answerId, Part.REMARK, remarkId.toString()),
                request,
                answer -> remarkOn(answer, remarkId),
                (answer, remark) -> remark.write(content));
    }

    private Remark remarkOn(SheetAnswer answer, UUID remarkId) {
        Remark remark = remarks.findById(remarkId).orElseGet(() -> Remark.of(remarkId, answer.id()));
        if (!remark.sheetAnswerId().equals(answer.id())) {
            throw Problem.notFound("This remark");
        }
        return remark;
    }

    /** Lines of code are shown as each difference has them; only the text is the same for everybody. */
    private void requireLines(SheetAnswerId answerId, RemarkContent.@Nullable Lines lines) {
        if (lines == null || lines.part() != RemarkContent.Part.TEXT) {
            return;
        }
        int there = sheetAnswers
                .findById(answerId)
                .map(a -> answers.blind(List.of(a.answerId())).get(a.answerId()))
                .map(a -> RemarkContent.linesOf(a.text()))
                .orElseThrow(() -> Problem.notFound("This answer"));
        if (lines.to() > there) {
            throw Problem.invalid("remark.lines.to", "must be a line of the answer, which has " + there);
        }
    }
}
