package org.mossbank.server.grading.desk;

import java.util.Arrays;
import java.util.List;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.AnswerCodes;
import org.mossbank.server.answer.CodeView;
import org.mossbank.server.answer.FileChangeView;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.database.Snapshot;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What answers on a sheet do to the starting code, and how they differ. */
@Service
class CodeService {
    private final OpenedSheets opened;
    private final SheetAnswerRepository sheetAnswers;
    private final Masking masking;
    private final AnswerCodes codes;
    private final Snapshot snapshot;

    CodeService(
            OpenedSheets opened,
            SheetAnswerRepository sheetAnswers,
            Masking masking,
            AnswerCodes codes,
            Snapshot snapshot) {
        this.opened = opened;
        this.sheetAnswers = sheetAnswers;
        this.masking = masking;
        this.codes = codes;
        this.snapshot = snapshot;
    }

    /** What is read of a sheet before its code is compared. */
    private record ToCompare(PromptView prompt, List<String> texts) {}

    private ToCompare toCompare(SheetId sheetId, SheetAnswerId... sheetAnswerIds) {
        return snapshot.of(() -> {
            Sheet sheet = opened.sheet(sheetId);
            return new ToCompare(
                    opened.promptOf(sheet),
                    Arrays.stream(sheetAnswerIds).map(a -> textOf(sheet, a)).toList());
        });
    }

    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public CodeView code(SheetId sheetId, SheetAnswerId sheetAnswerId) {
        ToCompare read = toCompare(sheetId, sheetAnswerId);
        return codes.view(read.prompt, read.texts.get(0));
    }

    private String textOf(Sheet sheet, SheetAnswerId sheetAnswerId) {
        SheetAnswer answer = sheetAnswers
                .findById(sheetAnswerId)
                .filter(a -> a.sheetId().equals(sheet.id()))
                .orElseThrow(() -> Problem.notFound("This answer"));
        return Require.known(masking.forRaters(List.of(answer.answerId())), answer.answerId())
                .text();
    }

    /** The differences between the code that two answers of a sheet end in. */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public List<FileChangeView> comparison(SheetId sheetId, SheetAnswerId first, SheetAnswerId second) {
        ToCompare read = toCompare(sheetId, first, second);
        return codes.between(read.prompt.startingCode(), read.texts.get(0), read.texts.get(1)).stream()
                .map(FileChangeView::between)
                .toList();
    }
}
