package org.mossbank.server.memo;

import jakarta.validation.Valid;
import jakarta.validation.constraints.Min;
import java.nio.charset.StandardCharsets;
import org.mossbank.server.audit.AuditSort;
import org.mossbank.server.audit.TakenAway;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.memo.paper.MemoPackage;
import org.mossbank.server.shared.MayRefuse;
import org.mossbank.server.shared.ProblemType;
import org.springframework.http.HttpHeaders;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.StreamingResponseBody;

@RestController
@RequestMapping("/api/studies/{studyId}/memos")
class MemoController {
    private final TakenAway taken;
    private final MemoService memos;

    MemoController(MemoService memos, TakenAway taken) {
        this.taken = taken;
        this.memos = memos;
    }

    /** The versions of the study's memo; once grading has ended. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping
    MemoViews.MemosView all(@PathVariable StudyId studyId) {
        return memos.all(studyId);
    }

    /** Begins the memo, or its next version with what the one before says. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @PostMapping
    @ResponseStatus(HttpStatus.CREATED)
    MemoViews.MemoView begin(@PathVariable StudyId studyId, @Valid @RequestBody MemoViews.BeginMemo request) {
        return memos.begin(studyId, request);
    }

    /** A version of the memo, with figures as they stand, or as they were when it was signed. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/{number}")
    MemoViews.MemoView one(@PathVariable StudyId studyId, @PathVariable int number) {
        return memos.one(studyId, number);
    }

    /** Keeps what the lead writes between the figures. */
    @MayRefuse(ProblemType.MEMO_SIGNED)
    @PutMapping("/{number}")
    MemoViews.KeptDraft write(
            @PathVariable StudyId studyId, @PathVariable int number, @Valid @RequestBody MemoViews.WriteMemo request) {
        return memos.write(studyId, number, request);
    }

    /** Drops a draft, with what raters hold against it. */
    @MayRefuse(ProblemType.MEMO_SIGNED)
    @DeleteMapping("/{number}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void drop(@PathVariable StudyId studyId, @PathVariable int number) {
        memos.drop(studyId, number);
    }

    /** Says in the memo where whoever graded sees it otherwise, or takes it back. */
    @MayRefuse(ProblemType.MEMO_SIGNED)
    @PutMapping("/{number}/dissent")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void dissent(
            @PathVariable StudyId studyId, @PathVariable int number, @Valid @RequestBody MemoViews.SayDissent request) {
        memos.dissent(studyId, number, request);
    }

    /** Signs a draft as it was read: from then on it stays as it is, with the archive that its figures rest on. */
    @MayRefuse({ProblemType.MEMO_SIGNED, ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY, ProblemType.PROOF_NEEDED})
    @PostMapping("/{number}/signature")
    MemoViews.MemoView sign(
            @PathVariable StudyId studyId, @PathVariable int number, @Valid @RequestBody MemoViews.SignMemo request) {
        return memos.sign(studyId, number, request);
    }

    /**
     * Every answer's grades, a window of a hundred answers.
     *
     * @param from the first to show, from 0
     */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping("/{number}/appendix")
    MemoViews.AppendixView appendix(
            @PathVariable StudyId studyId,
            @PathVariable int number,
            @RequestParam(defaultValue = "0") @Min(0) int from) {
        return memos.appendix(studyId, number, from);
    }

    /** The memo as one page of HTML that needs nothing else, to be read, printed or handed on. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping(path = "/{number}/page", produces = MediaType.TEXT_HTML_VALUE)
    ResponseEntity<byte[]> page(@PathVariable StudyId studyId, @PathVariable int number) {
        return MemoLinkController.page(memos.page(studyId, number));
    }

    /** The memo as Markdown. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping(path = "/{number}/markdown", produces = "text/markdown")
    ResponseEntity<byte[]> markdown(@PathVariable StudyId studyId, @PathVariable int number) {
        String text = memos.markdown(studyId, number);
        taken.of(studyId, AuditSort.MEMO_EXPORTED, number + ", Markdown");
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"memo-" + number + ".md\"")
                .contentType(new MediaType("text", "markdown", StandardCharsets.UTF_8))
                .body(text.getBytes(StandardCharsets.UTF_8));
    }

    /** A signed memo in its forms, together with the archive that its figures rest on, as a zip. */
    @MayRefuse({ProblemType.STANDINGS_HIDDEN, ProblemType.NOT_READY})
    @GetMapping(path = "/{number}/package", produces = "application/zip")
    ResponseEntity<StreamingResponseBody> files(@PathVariable StudyId studyId, @PathVariable int number) {
        MemoPackage files = memos.files(studyId, number);
        taken.of(studyId, AuditSort.MEMO_EXPORTED, number + ", package");
        return ResponseEntity.ok()
                .header(HttpHeaders.CONTENT_DISPOSITION, "attachment; filename=\"memo-" + number + ".zip\"")
                .contentType(new MediaType("application", "zip"))
                .body(files::writeZip);
    }
}
