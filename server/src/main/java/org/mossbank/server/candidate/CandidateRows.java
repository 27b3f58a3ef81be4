package org.mossbank.server.candidate;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.math.BigDecimal;
import java.time.LocalDate;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.shared.CurrencyCode;

/** Candidates as rows of the open format: their tables, how they are read and how they are written. */
public final class CandidateRows {
    private static final String ALL_SETTINGS = "settings";

    @TableForm(
            name = "candidates",
            meaning = "The models that are compared. Two rows may share a name if version or settings differ.",
            key = "candidate")
    record CandidateRow(
            @Column(value = "Key of the candidate", key = true)
            String candidate,

            @Column("Name") @As(CandidateContent.class) @NotNull
            String name,

            @Column("Exact version; may be empty") @As(CandidateContent.class)
            String version,

            @Column(
                    "All settings in one text, where they are not listed one by one in settings; taken as one setting of that name")
            @As(value = CandidateContent.Setting.class, property = "value")
            String settings,

            @Column("Facts that no grade covers, Markdown; may be empty") @As(CandidateContent.class)
            String note,

            @Column("Tokens") @As(CandidateContent.class) @Nullable
            Long contextWindow,

            @Column("Units of the currency for a million tokens in")
            @As(value = CandidateContent.Price.class, property = "inputPerMillion")
            @Nullable
            BigDecimal inputPrice,

            @Column("Units of the currency for a million tokens out")
            @As(value = CandidateContent.Price.class, property = "outputPerMillion")
            @Nullable
            BigDecimal outputPrice,

            @Column("Units of the currency for a plan, a month and person")
            @As(value = CandidateContent.Price.class, property = "monthly")
            @Nullable
            BigDecimal monthlyPrice,

            @Column("ISO 4217; if and only if there is a price") @Pattern(regexp = CurrencyCode.FORM) @Nullable
            String currency,

            @Column("What the plan's limits are, in words") @As(CandidateContent.Price.class)
            String caps,

            @Column("The limit that stops a person first, where it can be counted: so much of a unit in each period")
            @As(value = CandidateContent.Cap.class, property = "amount")
            @Nullable
            Long capAmount,

            @Column("What it counts; if and only if there is an amount")
            CandidateContent.Cap.@Nullable Unit capUnit,

            @Column("After which it begins anew; if and only if there is an amount")
            CandidateContent.Cap.@Nullable Period capPeriod,

            @Column("The day on which all this held, such as 2026-03-01") @Nullable
            LocalDate asOf,

            @Column("true for a person's own answers, graded blind among the rest")
            boolean baseline,

            @Column(
                    value = "Key of the rater whose answers they are, who does not grade them; for a baseline only",
                    in = "raters.rater")
            @Nullable
            String person) {}

    @TableForm(
            name = "settings",
            meaning = "Settings of candidates, one by one: effort, tools allowed, temperature.",
            key = {"candidate", "name"})
    record SettingRow(
            @Column(value = "The candidate", in = "candidates.candidate") @NotNull
            String candidate,

            @Column("Which setting") @As(CandidateContent.Setting.class) @NotNull
            String name,

            @Column("Its value") @As(CandidateContent.Setting.class)
            String value) {}

    @TableForm(
            name = "considerations",
            meaning = "Facts about candidates that no grade covers, in order.",
            key = {"candidate", "text"})
    record ConsiderationRow(
            @Column(value = "The candidate", in = "candidates.candidate") @NotNull
            String candidate,

            @Column("Which way it points") CandidateContent.Consideration.@NotNull Sign sign,

            @Column("The fact") @As(CandidateContent.Consideration.class) @NotNull
            String text,

            @Column("Which of the things it answers that are asked of all candidates; empty for another")
            CandidateContent.Consideration.@Nullable Decider about) {}

    public static final Table<CandidateRow> CANDIDATES = Table.of(CandidateRow.class);
    private static final Table<SettingRow> SETTINGS = Table.of(SettingRow.class);
    private static final Table<ConsiderationRow> CONSIDERATIONS = Table.of(ConsiderationRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = List.of(CANDIDATES, SETTINGS, CONSIDERATIONS);

    private final Tables tables;
    private final Map<String, List<Line<SettingRow>>> settings;
    private final Map<String, List<Line<ConsiderationRow>>> considerations;

    private CandidateRows(Tables tables) {
        this.tables = tables;
        this.settings = tables.by(SETTINGS, SettingRow::candidate);
        this.considerations = tables.by(CONSIDERATIONS, ConsiderationRow::candidate);
    }

    /** @param person key of the rater whose answers they are */
    public record KeyedCandidate(
            String key, CandidateContent content, @Nullable String person) {
        public static KeyedCandidate of(CandidateView candidate, Keys keys) {
            CandidateContent content = candidate.content();
            return new KeyedCandidate(candidate.key(), content, keys.orNone(content.personId()));
        }

        /** As it is kept. */
        public Candidates.NewCandidate kept(NewIds ids) {
            return new Candidates.NewCandidate(key, content.ofPerson(ids.person(person)));
        }
    }

    /** The candidates of tables that have been read; what is wrong goes to the faults. */
    public static List<KeyedCandidate> read(Tables tables) {
        CandidateRows rows = new CandidateRows(tables);
        return tables.lines(CANDIDATES).stream()
                .map(l -> rows.candidate(l.row(), l.at()))
                .toList();
    }

    private KeyedCandidate candidate(CandidateRow row, TableRow at) {
        if (row.person() != null && !row.baseline()) {
            tables.faults().add(at, "person", "nothing, as this is no baseline", row.person());
        }
        CandidateContent content = new CandidateContent(
                row.name(),
                row.version(),
                settings(row),
                row.contextWindow(),
                price(row, at),
                row.asOf(),
                row.note(),
                considerations.getOrDefault(row.candidate(), List.of()).stream()
                        .map(l -> new CandidateContent.Consideration(
                                l.row().sign(), l.row().text(), l.row().about()))
                        .toList(),
                row.baseline(),
                null);
        return new KeyedCandidate(row.candidate(), content, row.person());
    }

    /** The one text of the table of candidates first, then those listed one by one. */
    private List<CandidateContent.Setting> settings(CandidateRow row) {
        List<CandidateContent.Setting> all = new ArrayList<>();
        if (!row.settings().isEmpty()) {
            all.add(new CandidateContent.Setting(ALL_SETTINGS, row.settings()));
        }
        for (Line<SettingRow> one : settings.getOrDefault(row.candidate(), List.of())) {
            if (!row.settings().isEmpty() && one.row().name().equals(ALL_SETTINGS)) {
                tables.faults().add(one.at(), "name", "another name, as candidates.csv has settings too", ALL_SETTINGS);
            } else {
                all.add(new CandidateContent.Setting(one.row().name(), one.row().value()));
            }
        }
        return all;
    }

    private CandidateContent.Price price(CandidateRow row, TableRow at) {
        boolean priced = row.inputPrice() != null || row.outputPrice() != null || row.monthlyPrice() != null;
        if ((row.currency() != null) != priced) {
            tables.faults().add(at, "currency", "a currency if and only if there is a price", row.currency());
        }
        return new CandidateContent.Price(
                row.inputPrice(), row.outputPrice(), row.monthlyPrice(), row.currency(), row.caps(), cap(row, at));
    }

    private CandidateContent.@Nullable Cap cap(CandidateRow row, TableRow at) {
        Long amount = row.capAmount();
        CandidateContent.Cap.Unit unit = row.capUnit();
        CandidateContent.Cap.Period period = row.capPeriod();
        if (amount == null || unit == null || period == null) {
            if (amount != null || unit != null || period != null) {
                tables.faults().add(at, "cap_amount", "amount, unit and period, or none of the three", null);
            }
            return null;
        }
        return new CandidateContent.Cap(amount, unit, period);
    }

    public static void write(KeyedCandidate candidate, WrittenFiles out) {
        CandidateContent content = candidate.content();
        CandidateContent.Price price = content.price();
        CandidateContent.Cap cap = price.cap();
        out.add(
                CANDIDATES,
                new CandidateRow(
                        candidate.key(),
                        content.name(),
                        content.version(),
                        "",
                        content.note(),
                        content.contextWindow(),
                        price.inputPerMillion(),
                        price.outputPerMillion(),
                        price.monthly(),
                        price.currency(),
                        price.caps(),
                        cap == null ? null : (Long) cap.amount(),
                        cap == null ? null : cap.unit(),
                        cap == null ? null : cap.period(),
                        content.asOf(),
                        content.baseline(),
                        candidate.person()));
        content.settings().forEach(s -> out.add(SETTINGS, new SettingRow(candidate.key(), s.name(), s.value())));
        content.considerations()
                .forEach(c ->
                        out.add(CONSIDERATIONS, new ConsiderationRow(candidate.key(), c.sign(), c.text(), c.about())));
    }
}
