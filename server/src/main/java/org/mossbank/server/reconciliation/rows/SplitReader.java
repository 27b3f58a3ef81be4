package org.mossbank.server.reconciliation.rows;

import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Set;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.files.Tables;
import org.mossbank.server.reconciliation.Reconciliations;
import org.mossbank.server.reconciliation.SplitClosing;
import org.mossbank.server.rubric.KeyedCriterion;

/** Reads talks about splits, and checks what no column can say of itself. */
public final class SplitReader {
    private record Place(String answer, String criterion) {
        static Place of(SplitRows.OfSplit row) {
            return new Place(row.answer(), row.criterion());
        }
    }

    private final Tables tables;
    private final Map<String, Integer> highest = new HashMap<>();
    private final Set<Place> there = new HashSet<>();

    private SplitReader(Tables tables, List<KeyedCriterion> criteria) {
        this.tables = tables;
        criteria.forEach(c -> highest.put(c.key(), c.highestLevel()));
        tables.lines(SplitRows.SPLITS).forEach(l -> there.add(Place.of(l.row())));
    }

    /** @param criteria of the version that is graded by */
    public static List<KeyedSplit> read(Tables tables, List<KeyedCriterion> criteria) {
        return new SplitReader(tables, criteria).all();
    }

    private List<KeyedSplit> all() {
        Map<Place, List<Line<SplitRows.WordRow>>> words = of(SplitRows.WORDS);
        Map<Place, List<Line<SplitRows.StanceRow>>> stances = of(SplitRows.STANCES);
        Map<Place, List<Line<SplitRows.LookRow>>> looks = of(SplitRows.LOOKS);
        return tables.lines(SplitRows.SPLITS).stream()
                .map(line -> {
                    SplitRows.SplitRow row = line.row();
                    Place place = Place.of(row);
                    return new KeyedSplit(
                            row.answer(),
                            row.criterion(),
                            row.takenUpAt(),
                            row.takenUpBy(),
                            closing(line),
                            words.getOrDefault(place, List.of()).stream()
                                    .map(Line::row)
                                    .map(w ->
                                            new KeyedSplit.KeyedWord(w.rater(), w.saidAt(), w.words(), w.namesKnown()))
                                    .toList(),
                            stances.getOrDefault(place, List.of()).stream()
                                    .map(this::stance)
                                    .toList(),
                            looks.getOrDefault(place, List.of()).stream()
                                    .map(this::look)
                                    .toList());
                })
                .toList();
    }

    private <R extends Record & SplitRows.OfSplit> Map<Place, List<Line<R>>> of(Table<R> table) {
        Map<Place, List<Line<R>>> by = tables.by(table, Place::of);
        by.forEach((place, lines) -> {
            if (!there.contains(place)) {
                fault(lines.get(0).at(), "answer", "the answer and criterion of a split");
            }
        });
        return by;
    }

    private void fault(TableRow at, String field, String expected) {
        tables.faults().add(at, field, expected, at.textOrNull(field));
    }

    private void requireLevel(TableRow at, String criterion, double level) {
        int most = Require.known(highest, criterion);
        if (level > most) {
            fault(at, "level", "at most " + most + ", the highest level of the criterion");
        }
    }

    private @Nullable SplitClosing closing(Line<SplitRows.SplitRow> line) {
        SplitRows.SplitRow row = line.row();
        boolean open = row.state() == SplitClosing.State.OPEN;
        if (open != (row.closedAt() == null) || open != (row.closedBy() == null) || open != (row.how() == null)) {
            fault(line.at(), "closed_at", "with closed_by and how if and only if it is not open");
            return null;
        }
        Double level = row.level();
        if ((row.state() == SplitClosing.State.SETTLED) != (level != null)) {
            fault(line.at(), "level", "a level if and only if it is settled");
            return null;
        }
        if (level != null) {
            requireLevel(line.at(), row.criterion(), level);
        }
        return row.how() == null || row.closedBy() == null || row.closedAt() == null
                ? null
                : new SplitClosing(row.how(), level, row.closedBy(), row.closedAt(), row.reason(), row.namesKnown());
    }

    private KeyedSplit.KeyedStance stance(Line<SplitRows.StanceRow> line) {
        SplitRows.StanceRow row = line.row();
        requireLevel(line.at(), row.criterion(), row.level());
        return new KeyedSplit.KeyedStance(row.rater(), row.takenAt(), row.level(), row.reason(), row.namesKnown());
    }

    private KeyedSplit.KeyedLook look(Line<SplitRows.LookRow> line) {
        SplitRows.LookRow row = line.row();
        Integer level = row.level();
        if ((level == null) != (row.givenAt() == null) || (level == null) != (row.reason() == null)) {
            fault(line.at(), "given_at", "with a level and a reason or not at all");
        }
        if (level != null) {
            requireLevel(line.at(), row.criterion(), level);
        }
        return new KeyedSplit.KeyedLook(
                row.rater(),
                row.askedAt(),
                row.askedBy(),
                level == null || row.reason() == null || row.givenAt() == null
                        ? null
                        : new Reconciliations.Given(level, row.reason(), row.givenAt()));
    }
}
