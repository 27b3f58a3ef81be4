package org.mossbank.server.grading.sheet;

import jakarta.persistence.EntityManager;
import org.mossbank.server.account.Actor;
import org.mossbank.server.grading.SheetHappened;
import org.mossbank.server.ids.SheetId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Problem;
import org.springframework.context.ApplicationEventPublisher;
import org.springframework.stereotype.Component;

/** What happens to a sheet as a whole: done alone, and kept. Called within the transaction of whoever does it. */
@Component
public class SheetHistory {
    private final RoundRepository rounds;
    private final SheetRepository sheets;
    private final EntityManager entities;
    private final Actor actor;
    private final ApplicationEventPublisher events;

    SheetHistory(
            RoundRepository rounds,
            SheetRepository sheets,
            EntityManager entities,
            Actor actor,
            ApplicationEventPublisher events) {
        this.rounds = rounds;
        this.sheets = sheets;
        this.entities = entities;
        this.actor = actor;
        this.events = events;
    }

    /**
     * The round first, then the sheet, as with any change at the desk: one order, no deadlock.
     *
     * @throws Problem 404 if the study has no such sheet; 409 once the round is closed
     */
    public Sheet lock(StudyId study, SheetId sheetId) {
        rounds.lock(study).orElseThrow(() -> Problem.notFound("This round")).refuseIfClosed();
        return sheets.lock(sheetId)
                .filter(s -> s.studyId().equals(study))
                .orElseThrow(() -> Problem.notFound("This sheet"));
    }

    /** Keeps that something was done by whoever asks; figures are to be worked out anew. */
    public void happened(Sheet sheet, SheetEvent.Sort sort, String note) {
        entities.persist(SheetEvent.of(sheet.id(), sort, actor.name(), note, actor.now()));
        rounds.findById(sheet.studyId()).orElseThrow().advance();
        events.publishEvent(new SheetHappened(sheet.studyId(), sheet.promptId()));
    }
}
