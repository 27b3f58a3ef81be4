package org.mossbank.server.evidence;

import jakarta.persistence.EntityManager;
import java.time.Clock;
import java.time.Instant;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.grading.SheetsAtDesk;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.page.PictureOfPage;
import org.mossbank.server.shared.HeavyWork;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.database.CountedTurn;
import org.mossbank.server.shared.database.Snapshot;
import org.mossbank.server.trial.RepairRequest;
import org.mossbank.server.trial.Repairs;
import org.mossbank.server.trial.TrialResult;
import org.mossbank.server.trial.Trials;
import org.mossbank.server.trial.TriedAnswer;
import org.springframework.security.access.prepost.PreAuthorize;
import org.springframework.stereotype.Component;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;
import org.springframework.transaction.support.TransactionTemplate;

/** Trials at the desk, blind as everything there, and repairs that raters make. */
@Service
class DeskTrials {
    private final SightOfTrials sight;
    private final Trials trials;
    private final Repairs repairs;
    private final OwnInputs inputs;
    private final TrialSeenRepository seen;
    private final Reading reading;

    DeskTrials(
            SightOfTrials sight,
            Trials trials,
            Repairs repairs,
            OwnInputs inputs,
            TrialSeenRepository seen,
            Reading reading) {
        this.sight = sight;
        this.trials = trials;
        this.repairs = repairs;
        this.inputs = inputs;
        this.seen = seen;
        this.reading = reading;
    }

    /** How the database is held: never while texts are searched for names, or code is tried. */
    @Component
    record Reading(
            Snapshot snapshot,
            TransactionTemplate transactions,
            HeavyWork heavy,
            EntityManager entities,
            CountedTurn turn,
            Clock clock) {}

    private record Read(
            SightOfTrials.Sight sight,
            Map<AnswerId, TriedAnswer> tried,
            Map<AnswerId, TrialResult> results,
            int inputsLeft) {}

    /**
     * What came of trying the answers on a sheet. That its rater has seen it is written down.
     *
     * @throws Problem 409 if the rater must first say what they expect
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public TrialsOnSheet ofSheet(SheetId sheetId) {
        Read read = reading.snapshot.of(() -> {
            SightOfTrials.Sight of = sight.of(sheetId);
            List<AnswerId> visible = of.seenAnswers().stream()
                    .map(SheetsAtDesk.AnswerAtDesk::answerId)
                    .toList();
            return new Read(of, trials.ofAnswers(visible), trials.results(visible), inputs.left(sheetId));
        });
        writeSeen(read);
        Optional<String> missing = inputs.missing();
        return reading.heavy.run(() -> new TrialsOnSheet(
                read.sight.shown(),
                missing.orElse(null),
                read.sight.check().filter(c -> !c.run().isBlank()).isPresent(),
                read.inputsLeft,
                read.sight.sheet().answers().stream().map(a -> trial(read, a)).toList()));
    }

    private static TrialsOnSheet.TrialOnSheet trial(Read read, SheetsAtDesk.AnswerAtDesk answer) {
        TriedAnswer tried = read.tried.get(answer.answerId());
        Shown shown = Require.known(read.sight.masks(), answer.answerId());
        TrialResult result = read.results.get(answer.answerId());
        return new TrialsOnSheet.TrialOnSheet(
                answer.id(),
                !read.sight.visible().contains(answer.id()),
                tried == null
                        ? List.of()
                        : tried.turns().stream().map(DeskTrials::turn).toList(),
                result == null ? null : shown.result(result),
                tried == null
                        ? List.of()
                        : tried.repairs().stream()
                                .map(r -> shown.repair(r, read.sight.sheet().raterId()))
                                .toList(),
                SightOfTrials.proposed(tried).orElse(null));
    }

    private static TrialsOnSheet.TurnOnSheet turn(TriedAnswer.TurnTried turn) {
        return new TrialsOnSheet.TurnOnSheet(
                turn.turn(),
                turn.worst(),
                turn.trials().trials().size(),
                turn.trials().isFlaky());
    }

    /** Only what was tried can have been seen. */
    private void writeSeen(Read read) {
        if (!read.sight.sheet().isOpen() || read.tried.isEmpty()) {
            return;
        }
        List<SheetsAtDesk.AnswerAtDesk> shown = read.sight.seenAnswers().stream()
                .filter(a -> read.tried.containsKey(a.answerId()))
                .toList();
        reading.transactions.executeWithoutResult(status -> {
            Set<SheetAnswerId> before = seen.seenOf(
                    shown.stream().map(SheetsAtDesk.AnswerAtDesk::id).toList());
            Instant now = reading.clock.instant();
            shown.stream()
                    .filter(a -> !before.contains(a.id()))
                    .forEach(a -> seen.write(
                            a.id().value(),
                            read.sight.sheet().studyId().value(),
                            read.sight.sheet().raterId().value(),
                            a.answerId().value(),
                            now,
                            a.level()));
        });
    }

    /**
     * The files of an answer's code that may be changed, as raters may see them.
     *
     * @throws Problem 409 if its trials are not shown, or nothing can be tried
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public List<RepairRequest.ChangedFile> files(SheetId sheetId, SheetAnswerId id) {
        Opened opened = open(sheetId, id);
        Map<String, String> files = repairs.files(opened.sheet.studyId(), opened.answer.answerId());
        return reading.heavy.run(() -> opened.shown.paths(files.keySet()).entrySet().stream()
                .map(p -> new RepairRequest.ChangedFile(
                        p.getKey(), opened.shown.masked().apply(Require.known(files, p.getValue()))))
                .toList());
    }

    private record Opened(SheetsAtDesk.SheetAtDesk sheet, SheetsAtDesk.AnswerAtDesk answer, Shown shown) {}

    private Opened open(SheetId sheetId, SheetAnswerId id) {
        return reading.snapshot.of(() -> {
            SightOfTrials.Sight of = sight.of(sheetId);
            SheetsAtDesk.AnswerAtDesk answer = of.open(id);
            return new Opened(of.sheet(), answer, Require.known(of.masks(), answer.answerId()));
        });
    }

    /** @throws Problem 400 if nothing is another now; 409 if its trials are not shown, or nothing can be tried */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public TrialsOnSheet.RepairTriedOnSheet repair(SheetId sheetId, SheetAnswerId id, RepairRequest request) {
        Opened opened = open(sheetId, id);
        StudyId study = opened.sheet.studyId();
        AnswerId answer = opened.answer.answerId();
        Map<String, String> paths =
                opened.shown.paths(repairs.files(study, answer).keySet());
        Map<String, String> changed = new LinkedHashMap<>();
        request.texts()
                .forEach((path, text) -> changed.put(
                        Optional.ofNullable(paths.get(path))
                                .orElseThrow(() -> Problem.invalid("files", "must be of the answer's code")),
                        text));
        Repairs.RepairTried tried = repairs.make(study, answer, opened.shown.masked(), changed);
        return reading.heavy.run(() -> new TrialsOnSheet.RepairTriedOnSheet(
                opened.shown.repair(tried.repair(), opened.sheet.raterId()), opened.shown.result(tried.result())));
    }

    /**
     * A picture of the page of an answer on the sheet.
     *
     * @param place in the order in which its trial tells of them
     * @return PNG
     * @throws Problem 404 if there is none, or it is held back
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public byte[] picture(SheetId sheetId, SheetAnswerId id, int place) {
        return picture(
                sheetId,
                id,
                answer -> Optional.ofNullable(trials.results(List.of(answer)).get(answer)),
                answer -> trials.picture(answer, place),
                place);
    }

    /**
     * A picture of the page of an answer on the sheet as somebody repaired it.
     *
     * @return PNG
     * @throws Problem 404 if there is none, or it is held back
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public byte[] repairPicture(SheetId sheetId, SheetAnswerId id, RepairId repair, int place) {
        return picture(
                sheetId,
                id,
                answer -> Optional.of(repairs.one(answer, repair).result()),
                answer -> Optional.of(repairs.picture(answer, repair, place)),
                place);
    }

    private byte[] picture(
            SheetId sheetId,
            SheetAnswerId id,
            Function<AnswerId, Optional<TrialResult>> result,
            Function<AnswerId, Optional<byte[]>> png,
            int place) {
        record Found(Shown shown, PictureOfPage about, byte[] png) {}
        Found found = reading.snapshot.of(() -> {
            SightOfTrials.Sight of = sight.of(sheetId);
            AnswerId answer = of.seen(id);
            return new Found(
                    Require.known(of.masks(), answer),
                    result.apply(answer)
                            .map(TrialResult::pictures)
                            .filter(told -> place >= 0 && place < told.size())
                            .map(told -> told.get(place))
                            .orElseThrow(DeskTrials::noPicture),
                    png.apply(answer).orElseThrow(DeskTrials::noPicture));
        });
        if (reading.heavy.run(() -> found.shown.isHeld(found.about))) {
            throw noPicture();
        }
        return found.png;
    }

    private static Problem noPicture() {
        return Problem.notFound("This picture");
    }

    /**
     * What came of a repair of an answer on the sheet.
     *
     * @throws Problem 404 if there is no such repair
     */
    @PreAuthorize("@sheetAccess.isOwn(#sheetId)")
    @Transactional(propagation = Propagation.NEVER)
    public TrialsOnSheet.ResultOnSheet repairResult(SheetId sheetId, SheetAnswerId id, RepairId repair) {
        record Kept(Shown shown, TrialResult result) {}
        Kept kept = reading.snapshot.of(() -> {
            SightOfTrials.Sight of = sight.of(sheetId);
            AnswerId answer = of.seen(id);
            return new Kept(
                    Require.known(of.masks(), answer),
                    repairs.one(answer, repair).result());
        });
        return reading.heavy.run(() -> kept.shown.result(kept.result));
    }
}
