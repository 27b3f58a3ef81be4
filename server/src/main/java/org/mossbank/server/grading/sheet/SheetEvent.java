package org.mossbank.server.grading.sheet;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.mossbank.server.ids.SheetId;

/** Something that became of a sheet. Only ever added. */
@Entity
public class SheetEvent {
    /** What became of it. */
    public enum Sort {
        SENT,
        TAKEN_BACK,
        WITHDRAWN,
        /** To the rater from whom it was withdrawn. */
        GIVEN_BACK,
        /** By another rater, on a sheet of their own. */
        TAKEN_OVER
    }

    @Id
    private UUID id;

    private SheetId sheetId;

    @Enumerated(EnumType.STRING)
    private Sort sort;

    private String madeBy;
    private String note;
    private Instant madeAt;

    @SuppressWarnings("NullAway.Init")
    protected SheetEvent() {}

    public static SheetEvent of(SheetId sheetId, Sort sort, String madeBy, String note, Instant now) {
        SheetEvent event = new SheetEvent();
        event.id = UUID.randomUUID();
        event.sheetId = sheetId;
        event.sort = sort;
        event.madeBy = madeBy;
        event.note = note;
        event.madeAt = now;
        return event;
    }
}
