package org.mossbank.server.grading.sheet;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.util.Optional;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.grading.desk.SheetView;
import org.mossbank.server.ids.SheetAnswerId;

/** A remark as it stands now; one that was removed stays, so that an old window cannot bring it back unseen. */
@Entity
public class Remark implements DeskCell {
    @Id
    private UUID id;

    private SheetAnswerId sheetAnswerId;

    @Enumerated(EnumType.STRING)
    private RemarkContent.Stance stance;

    private String trait;
    private String words;

    @Enumerated(EnumType.STRING)
    private RemarkContent.@Nullable Part part;

    @Nullable
    private String path;

    @Nullable
    private Integer fromLine;

    @Nullable
    private Integer toLine;

    private String quote;
    private boolean removed;
    private long revision;

    @SuppressWarnings("NullAway.Init")
    protected Remark() {}

    public static Remark of(UUID id, SheetAnswerId sheetAnswerId) {
        Remark remark = new Remark();
        remark.id = id;
        remark.sheetAnswerId = sheetAnswerId;
        remark.stance = RemarkContent.Stance.FAULT;
        remark.trait = "";
        remark.words = "";
        remark.quote = "";
        remark.removed = true;
        return remark;
    }

    /** Absent content removes it. */
    public void write(@Nullable RemarkContent content) {
        removed = content == null;
        if (content != null) {
            stance = content.stance();
            trait = content.trait().strip();
            words = content.words();
            RemarkContent.Lines lines = content.lines();
            part = lines == null ? null : lines.part();
            path = lines == null ? null : lines.path();
            fromLine = lines == null ? null : lines.from();
            toLine = lines == null ? null : lines.to();
            quote = lines == null ? "" : lines.quote();
        }
        revision++;
    }

    public UUID id() {
        return id;
    }

    public SheetAnswerId sheetAnswerId() {
        return sheetAnswerId;
    }

    /** Empty if it was removed. */
    public Optional<RemarkContent> content() {
        RemarkContent.Lines lines = part == null || fromLine == null || toLine == null
                ? null
                : new RemarkContent.Lines(part, path, fromLine, toLine, quote);
        return removed ? Optional.empty() : Optional.of(new RemarkContent(stance, trait, words, lines));
    }

    @Override
    public long revision() {
        return revision;
    }

    @Override
    public SheetView.RemarkOnSheet state() {
        return new SheetView.RemarkOnSheet(id, content().orElse(null), revision);
    }
}
