package org.mossbank.server.grading.sheet;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.UUID;
import org.mossbank.server.ids.SheetAnswerId;

/** One change that a rater made on a sheet. Only ever added; the database refuses anything else. */
@Entity
public class GradingChange {
    /** What a change is of. */
    public enum Part {
        GRADE,
        REASON,
        WORKS,
        PREFERENCE,
        COVERAGE,
        REMARK,
        GUESS
    }

    /**
     * The cell that a change is of.
     *
     * @param item which criterion, key point or remark; empty where an answer has one such cell
     */
    public record Place(SheetAnswerId sheetAnswerId, Part part, String item) {}

    @Id
    private UUID changeId;

    private SheetAnswerId sheetAnswerId;

    @Enumerated(EnumType.STRING)
    private Part part;

    private String item;
    /** What was set, as JSON. */
    private String value;

    private long revision;
    private Instant madeAt;

    @SuppressWarnings("NullAway.Init")
    protected GradingChange() {}

    /** @param value what was set, as JSON */
    public static GradingChange of(UUID changeId, Place place, String value, long revision, Instant now) {
        GradingChange change = new GradingChange();
        change.changeId = changeId;
        change.sheetAnswerId = place.sheetAnswerId;
        change.part = place.part;
        change.item = place.item;
        change.value = value;
        change.revision = revision;
        change.madeAt = now;
        return change;
    }

    /** Of its cell, from this change on. */
    public long revision() {
        return revision;
    }

    /** Whether this change was made there; a change id is for one cell only. */
    public boolean isOf(Place place) {
        return new Place(sheetAnswerId, part, item).equals(place);
    }
}
