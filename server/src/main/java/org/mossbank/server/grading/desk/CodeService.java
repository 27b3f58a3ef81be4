package org.mossbank.server.grading.desk;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import org.mossbank.core.change.AnswerCode;
import org.mossbank.core.change.CodeFile;
import org.mossbank.core.change.RequestScope;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.AnswerCodes;
import org.mossbank.server.answer.FileChangeView;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.masking.Masking;
import org.mossbank.server.prompt.KeyPoint;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.Snapshot;
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

    /**
     * The code of an answer.
     *
     * @param changes what it does to the starting code
     * @param files   the code that it ends in: files whole, then blocks that belong to none
     * @param outside files that it changes though the prompt does not speak of them
     * @param namesFiles whether the prompt speaks of any file at all
     * @param limits  why something is not shown, in sentences
     */
    record CodeOnSheet(
            List<FileChangeView> changes,
            List<CodeFile> files,
            List<String> outside,
            boolean namesFiles,
            List<String> limits) {}

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
    public CodeOnSheet code(SheetId sheetId, SheetAnswerId sheetAnswerId) {
        ToCompare read = toCompare(sheetId, sheetAnswerId);
        AnswerCode code = codes.of(read.prompt.startingCode(), read.texts.get(0));
        RequestScope scope = scopeOf(read.prompt);
        return new CodeOnSheet(
                code.changes().stream().map(FileChangeView::of).toList(),
                code.files(),
                scope.outside(
                        code.changes().stream().map(AnswerCode.Fitted::change).toList()),
                !scope.named().isEmpty(),
                code.limits());
    }

    private static RequestScope scopeOf(PromptView prompt) {
        PromptContent content = prompt.content();
        List<String> texts = new ArrayList<>(content.constraints());
        texts.add(content.title());
        texts.add(content.request());
        content.keyPoints().forEach(k -> texts.add(k.text()));
        return RequestScope.of(
                texts,
                content.keyPoints().stream()
                        .map(KeyPoint::file)
                        .flatMap(f -> Optional.ofNullable(f).stream())
                        .toList(),
                prompt.startingCode().keySet());
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
