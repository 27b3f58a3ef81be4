package org.mossbank.server.evidence.rows;

import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import java.util.Comparator;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.page.PageContent;
import org.mossbank.server.page.Picture;
import org.mossbank.server.page.PictureOfPage;
import org.mossbank.server.trial.TrialRecords;
import org.mossbank.server.trial.TrialResult;

/** Pictures of pages as rows with files of their own, each of what came of a trial. */
final class PictureRows {
    private static final int MOST_BYTES = 4 << 20;

    @TableForm(
            name = "page-pictures",
            meaning = "Pictures of answers' pages, taken step by step in trials and in trials of repairs.",
            key = {"of", "place"})
    record PictureRow(
            @Column("Path in the archive of what came of the trial or the repair") @NotNull
            String of,

            @Column("In the order in which that tells of them, from 1") @Min(1) @Max(PageContent.MOST_PICTURES)
            int place,

            @Column("Path in the archive of the picture, PNG") @NotNull
            String file) {}

    static final Table<PictureRow> PICTURES = Table.of(PictureRow.class);

    private final Tables tables;
    private final Map<String, List<Line<PictureRow>>> byFile;
    private long bytes;

    /** @param tables that are read */
    PictureRows(Tables tables) {
        this.tables = tables;
        this.byFile = tables.by(PICTURES, PictureRow::of);
    }

    Tables tables() {
        return tables;
    }

    /** Those that a result tells of, drawn anew; with a fault where one is missing. */
    List<Picture> of(String file, TrialResult result) {
        List<PictureOfPage> told = result.pictures();
        List<Line<PictureRow>> lines = Objects.requireNonNullElse(byFile.remove(file), List.of());
        tables.inPlaces(lines, PictureRow::place);
        if (lines.size() != told.size()) {
            tables.faults()
                    .add(Fault.ofFile(
                            tables.path(PICTURES), "%d pictures of %s, as it tells".formatted(told.size(), file)));
        }
        return lines.stream()
                .filter(l -> l.row().place() <= told.size())
                .sorted(Comparator.comparingInt(l -> l.row().place()))
                .flatMap(l -> picture(l, told.get(l.row().place() - 1)).stream())
                .toList();
    }

    private Optional<Picture> picture(Line<PictureRow> line, PictureOfPage about) {
        Optional<Picture> read =
                tables.bytes(line.at(), "file", MOST_BYTES).flatMap(found -> Picture.drawnAnew(about, found));
        bytes += read.map(Picture::bytes).orElse(0);
        if (read.isEmpty() || bytes > TrialRecords.MOST_PICTURES) {
            tables.faults()
                    .add(
                            line.at(),
                            "file",
                            "a PNG picture of a page, all of them together at most "
                                    + (TrialRecords.MOST_PICTURES >> 20) + " MB",
                            line.row().file());
        }
        return read;
    }

    /** Once all results were read: what is left is of none of them. */
    void refuseOthers() {
        if (tables.faults().isEmpty()) {
            byFile.values()
                    .forEach(lines -> lines.forEach(l -> tables.faults()
                            .add(
                                    l.at(),
                                    "of",
                                    "the file of a trial or a repair",
                                    l.row().of())));
        }
    }

    /** @param of path of the result */
    static void write(String of, List<Picture> pictures, WrittenFiles out) {
        for (int i = 0; i < pictures.size(); i++) {
            String path = "%s-%02d.png".formatted(of.substring(0, of.length() - ".json".length()), i + 1);
            out.put(path, pictures.get(i).png());
            out.add(PICTURES, new PictureRow(of, i + 1, path));
        }
    }
}
