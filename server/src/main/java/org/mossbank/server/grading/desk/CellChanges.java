package org.mossbank.server.grading.desk;

import jakarta.persistence.EntityManager;
import jakarta.persistence.PersistenceException;
import java.time.Clock;
import java.util.Optional;
import java.util.UUID;
import java.util.function.BiConsumer;
import java.util.function.Function;
import org.hibernate.exception.ConstraintViolationException;
import org.mossbank.server.grading.sheet.DeskCell;
import org.mossbank.server.grading.sheet.GradingChange;
import org.mossbank.server.grading.sheet.GradingChange.Part;
import org.mossbank.server.grading.sheet.GradingChangeRepository;
import org.mossbank.server.grading.sheet.Round;
import org.mossbank.server.grading.sheet.RoundRepository;
import org.mossbank.server.grading.sheet.Sheet;
import org.mossbank.server.grading.sheet.SheetAnswer;
import org.mossbank.server.grading.sheet.SheetAnswerRepository;
import org.mossbank.server.grading.sheet.SheetRepository;
import org.mossbank.server.ids.SheetAnswerId;
import org.mossbank.server.shared.Problem;
import org.mossbank.server.shared.ProblemType;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/**
 * The one way in for what a rater says: on what they saw, once, written down, and only while it may still be said. Called
 * within the transaction of whoever asks.
 */
@Component
class CellChanges {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final SheetAnswerRepository sheetAnswers;
    private final GradingChangeRepository changes;
    private final ExpectationGate expectations;
    private final EntityManager entities;
    private final JsonMapper json;
    private final Clock clock;

    CellChanges(
            RoundRepository rounds,
            SheetRepository sheets,
            SheetAnswerRepository sheetAnswers,
            GradingChangeRepository changes,
            ExpectationGate expectations,
            EntityManager entities,
            JsonMapper json,
            Clock clock) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.sheetAnswers = sheetAnswers;
        this.changes = changes;
        this.expectations = expectations;
        this.entities = entities;
        this.json = json;
        this.clock = clock;
    }

    /** Where a change is made. */
    record Spot(SheetFrame frame, SheetAnswerId answerId, Part part, String item) {}

    /** Makes a change on what the rater saw and writes it down; the very same change again does nothing. */
    <C extends DeskCell> SheetView.Saved change(
            Spot spot, DeskRequests.Change request, Function<SheetAnswer, C> find, BiConsumer<SheetAnswer, C> set) {
        Sheet sheet = lock(spot.frame());
        SheetAnswer answer = sheetAnswers
                .findById(spot.answerId())
                .filter(a -> a.sheetId().equals(sheet.id()))
                .orElseThrow(() -> Problem.notFound("This answer"));
        C cell = find.apply(answer);
        GradingChange.Place place = new GradingChange.Place(answer.id(), spot.part(), spot.item());
        if (request.baseRevision() != cell.revision()) {
            // The same change again stands on an older revision, so it need not be looked for before.
            Optional<GradingChange> earlier = made(request.changeId(), place);
            if (earlier.isPresent()) {
                long own = earlier.get().revision();
                return new SheetView.Saved(own, own == cell.revision() ? null : cell.state());
            }
            throw new Problem(ProblemType.CHANGED_ELSEWHERE, "This was changed in another window since you saw it.")
                    .with("current", cell.state());
        }
        refuseIfLocked(sheet, spot.part());
        boolean isNew = cell.revision() == 0;
        set.accept(answer, cell);
        if (isNew && cell.isRow()) {
            entities.persist(cell);
        }
        entities.persist(GradingChange.of(
                request.changeId(), place, json.writeValueAsString(request), cell.revision(), clock.instant()));
        flush();
        return new SheetView.Saved(cell.revision(), null);
    }

    private void flush() {
        try {
            entities.flush();
        } catch (PersistenceException e) {
            if (e instanceof ConstraintViolationException violation
                    && "grading_change_pkey".equals(violation.getConstraintName())) {
                throw Problem.invalid("changeId", "must be new for every change");
            }
            throw e;
        }
    }

    /** The round first, then the sheet: one order, no deadlock. */
    private Sheet lock(SheetFrame frame) {
        expectations.refuseBefore(frame.studyId(), frame.raterId());
        Round round = rounds.holdOpen(frame.studyId()).orElseThrow();
        round.refuseIfClosed();
        return sheets.lock(frame.id()).orElseThrow();
    }

    private Optional<GradingChange> made(UUID changeId, GradingChange.Place place) {
        Optional<GradingChange> earlier = changes.findById(changeId);
        if (earlier.isPresent() && !earlier.get().isOf(place)) {
            throw Problem.invalid("changeId", "must be new for every change");
        }
        return earlier;
    }

    private static void refuseIfLocked(Sheet sheet, Part part) {
        sheet.refuseIfWithdrawn();
        if (part == Part.GUESS && !sheet.isSent()) {
            throw new Problem(ProblemType.NOT_READY, "A guess is asked for once the sheet is sent in.");
        }
        if (part != Part.GUESS && sheet.isSent()) {
            throw new Problem(ProblemType.SHEET_SENT, "This sheet was sent in. Take it back to change it.");
        }
    }
}
