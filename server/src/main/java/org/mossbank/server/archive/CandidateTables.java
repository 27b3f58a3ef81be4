package org.mossbank.server.archive;

import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.files.TableRow;

/** Reads candidates from their tables. */
final class CandidateTables {
    private static final String ALL_SETTINGS = "settings";
    private static final int MOST_DECIMALS = 6;

    private final ArchiveTables tables;

    CandidateTables(ArchiveTables tables) {
        this.tables = tables;
    }

    List<StudyArchive.ArchiveCandidate> read() {
        return tables.rows("candidates").stream().map(this::candidate).toList();
    }

    private StudyArchive.ArchiveCandidate candidate(TableRow row) {
        String key = row.text("candidate");
        if (row.textOrNull("person") != null && !row.truth("baseline")) {
            tables.faults().add(row, "person", "nothing, as this is no baseline", row.text("person"));
        }
        String asOf = row.textOrNull("as_of");
        CandidateContent content = new CandidateContent(
                row.text("name"),
                row.text("version"),
                settings(row, key),
                row.wholeOrNull("context_window"),
                price(row),
                asOf == null ? null : LocalDate.parse(asOf),
                row.text("note"),
                tables.rows("considerations", "candidate", key).stream()
                        .map(r -> new CandidateContent.Consideration(
                                Objects.requireNonNull(
                                        ArchiveTables.word(CandidateContent.Consideration.Sign.class, r.text("sign"))),
                                r.text("text")))
                        .toList(),
                row.truth("baseline"),
                null);
        return new StudyArchive.ArchiveCandidate(key, content, row.textOrNull("person"));
    }

    /** The one text of the table of candidates first, then those listed one by one. */
    private List<CandidateContent.Setting> settings(TableRow row, String key) {
        List<CandidateContent.Setting> settings = new ArrayList<>();
        String all = row.textOrNull("settings");
        if (all != null) {
            settings.add(new CandidateContent.Setting(ALL_SETTINGS, all));
        }
        for (TableRow one : tables.rows("settings", "candidate", key)) {
            if (all != null && one.text("name").equals(ALL_SETTINGS)) {
                tables.faults().add(one, "name", "another name, as candidates.csv has settings too", ALL_SETTINGS);
            } else {
                settings.add(new CandidateContent.Setting(one.text("name"), one.text("value")));
            }
        }
        return settings;
    }

    private CandidateContent.Price price(TableRow row) {
        BigDecimal input = amount(row, "input_price");
        BigDecimal output = amount(row, "output_price");
        BigDecimal monthly = amount(row, "monthly_price");
        String currency = row.textOrNull("currency");
        if ((currency == null) != (input == null && output == null && monthly == null)) {
            tables.faults().add(row, "currency", "a currency if and only if there is a price", currency);
        }
        return new CandidateContent.Price(input, output, monthly, currency, row.text("caps"));
    }

    private @Nullable BigDecimal amount(TableRow row, String column) {
        BigDecimal amount = TableRow.plain(row.decimalOrNull(column));
        if (amount != null && amount.scale() > MOST_DECIMALS) {
            tables.faults().add(row, column, "at most six decimals", row.text(column));
        }
        return amount;
    }
}
