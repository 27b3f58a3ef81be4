package org.mossbank.server.grading.sheet;

import jakarta.persistence.Embeddable;
import jakarta.persistence.EmbeddedId;
import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import java.io.Serializable;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.Verdict;
import org.mossbank.server.grading.desk.SheetView;
import org.mossbank.server.ids.SheetAnswerId;

/** How far one answer holds one key point, as its rater sees it now. */
@Entity
public class Coverage implements DeskCell {
    /** @param point which key point, from 0 */
    @Embeddable
    public record Key(SheetAnswerId sheetAnswerId, int point) implements Serializable {}

    @EmbeddedId
    private Key key;

    @Nullable
    @Enumerated(EnumType.STRING)
    private Verdict verdict;

    private long revision;

    @SuppressWarnings("NullAway.Init")
    protected Coverage() {}

    public static Coverage of(Key key) {
        Coverage coverage = new Coverage();
        coverage.key = key;
        return coverage;
    }

    public void set(@Nullable Verdict newVerdict) {
        verdict = newVerdict;
        revision++;
    }

    public Key key() {
        return key;
    }

    @Nullable
    public Verdict verdict() {
        return verdict;
    }

    @Override
    public long revision() {
        return revision;
    }

    @Override
    public SheetView.CoverageOnSheet state() {
        return new SheetView.CoverageOnSheet(key.point, verdict, revision);
    }
}
