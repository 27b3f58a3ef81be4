package org.mossbank.server.grading.rows;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.TreeMap;
import java.util.TreeSet;
import java.util.function.Function;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.assignment.Assignment;
import org.mossbank.core.assignment.GradingTask;
import org.mossbank.core.assignment.PlanOptions;
import org.mossbank.core.assignment.SheetPlan;
import org.mossbank.core.estimate.Require;
import org.mossbank.core.estimate.Resamples;
import org.mossbank.server.candidate.CandidateRows.KeyedCandidate;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.Tables;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.prompt.PromptRows.KeyedPrompt;
import org.mossbank.server.rubric.KeyedCriterion;
import org.mossbank.server.rubric.RubricRows;

/** Puts sheets together from what rows say of them, and draws from the seed what they leave open. */
public final class SheetReader {
    private final Tables tables;
    private final Basis basis;
    private final Map<String, List<GradingTask.Entry>> entries;
    private final Map<String, Set<String>> applicable = new HashMap<>();

    /**
     * An answer that may lie on a sheet.
     *
     * @param candidate absent for a specimen
     */
    public record Gradable(
            String key, String prompt, @Nullable String candidate, String wholeText) {}

    /** What sheets are about, by keys. */
    public static final class Basis {
        private final long seed;
        private final Set<String> raters;
        private final Map<String, KeyedPrompt> prompts;
        private final Map<String, KeyedCandidate> candidates;
        private final Map<String, Gradable> answers;
        private final Map<String, KeyedCriterion> criteria;
        private final Set<String> traits;
        private final Set<Integer> versions;

        /**
         * @param traits   of the rubric as it is and as it was
         * @param versions published versions of the rubric
         */
        public Basis(
                long seed,
                List<String> raters,
                List<KeyedPrompt> prompts,
                List<KeyedCandidate> candidates,
                List<Gradable> answers,
                List<KeyedCriterion> criteria,
                Set<String> traits,
                Set<Integer> versions) {
            this.versions = Set.copyOf(versions);
            this.traits = Set.copyOf(traits);
            this.seed = seed;
            this.raters = new TreeSet<>(raters);
            this.prompts = byKey(prompts, KeyedPrompt::key);
            this.candidates = byKey(candidates, KeyedCandidate::key);
            this.answers = byKey(answers, Gradable::key);
            this.criteria = byKey(criteria, KeyedCriterion::key);
        }

        private static <T> Map<String, T> byKey(List<T> all, Function<T, String> key) {
            return all.stream().collect(Collectors.toMap(key, Function.identity(), (a, b) -> a, LinkedHashMap::new));
        }

        KeyedPrompt prompt(String key) {
            return Require.known(prompts, key);
        }

        boolean hasTrait(String trait) {
            return traits.contains(trait.strip());
        }

        boolean isPublished(int version) {
            return versions.contains(version);
        }

        int lines(String answer) {
            return RemarkContent.linesOf(Require.known(answers, answer).wholeText());
        }

        /** The sheet and the answer that a row is about. */
        Cell cell(SheetRows.OnSheet row) {
            String prompt = Require.known(answers, row.answer()).prompt();
            return new Cell(new SheetKey(row.rater(), prompt, row.repeat()), row.answer());
        }
    }

    /** A sheet by keys. */
    record SheetKey(String rater, String prompt, boolean repeat) {}

    /** An answer on a sheet. */
    record Cell(SheetKey sheet, String answer) {}

    private SheetReader(Tables tables, Basis basis) {
        this.tables = tables;
        this.basis = basis;
        Set<String> spokenOf =
                said().stream().map(l -> ((SheetRows.OnSheet) l.row()).answer()).collect(Collectors.toSet());
        // What left nothing to grade is on no sheet, unless somebody said something of it all the same.
        this.entries = basis.answers.values().stream()
                .filter(a -> !a.wholeText().isBlank() || spokenOf.contains(a.key()))
                .collect(Collectors.groupingBy(
                        Gradable::prompt, Collectors.mapping(SheetReader::entry, Collectors.toList())));
    }

    /** A specimen is of nobody but itself. */
    private static GradingTask.Entry entry(Gradable answer) {
        return new GradingTask.Entry(answer.key(), answer.candidate() == null ? answer.key() : answer.candidate());
    }

    /** Sheets by rater, then place; what is wrong goes to the faults. */
    public static List<KeyedSheet> read(Tables tables, Basis basis) {
        return new SheetReader(tables, basis).read();
    }

    private List<KeyedSheet> read() {
        Map<SheetKey, SheetPlan> drawn = new LinkedHashMap<>();
        draw().forEach(p -> drawn.put(new SheetKey(p.rater(), p.prompt(), false), p));
        SaidReader.Said said = new SaidReader(tables, basis).read(marks());
        Map<SheetKey, List<String>> orders = orders(drawn);
        checkMarksAreOnSheets(orders);
        List<KeyedSheet> sheets = tables.has(SheetRows.SHEETS)
                ? listed(orders, said)
                : drawn.entrySet().stream()
                        .map(e -> unlisted(e.getKey(), e.getValue(), orders, said))
                        .collect(Collectors.toCollection(ArrayList::new));
        sheets.sort(Comparator.comparing(KeyedSheet::rater).thenComparingInt(KeyedSheet::place));
        return sheets;
    }

    private KeyedSheet unlisted(
            SheetKey key, SheetPlan plan, Map<SheetKey, List<String>> orders, SaidReader.Said said) {
        List<KeyedSheet.KeyedAnswer> onSheet = answers(key, orders, said);
        return new KeyedSheet(
                key.rater(), key.prompt(), plan.place(), false, null, isComplete(key, onSheet), null, null, onSheet);
    }

    private List<KeyedSheet> listed(Map<SheetKey, List<String>> orders, SaidReader.Said said) {
        checkMarksBelongToSheets();
        List<KeyedSheet> sheets = new ArrayList<>();
        for (Line<SheetRows.SheetRow> line : tables.lines(SheetRows.SHEETS)) {
            SheetRows.SheetRow row = line.row();
            SheetKey key = new SheetKey(row.rater(), row.prompt(), row.repeat());
            List<KeyedSheet.KeyedAnswer> onSheet = answers(key, orders, said);
            CalibratingSheets.checkVersion(tables, basis, line);
            boolean sent = row.sentAt() != null;
            if (sent && !isComplete(key, onSheet)) {
                tables.faults()
                        .add(
                                line.at(),
                                "sent_at",
                                "nothing, as grades are missing on this sheet",
                                line.at().text("sent_at"));
            }
            sheets.add(new KeyedSheet(
                    key.rater(),
                    key.prompt(),
                    row.place() - 1,
                    key.repeat(),
                    row.rubricVersion(),
                    sent,
                    row.sentAt(),
                    withdrawn(line),
                    onSheet));
        }
        return sheets;
    }

    private Grading.@Nullable Withdrawn withdrawn(Line<SheetRows.SheetRow> line) {
        SheetRows.SheetRow row = line.row();
        if (row.withdrawnAt() == null && !row.withdrawnReason().isEmpty()) {
            tables.faults().add(line.at(), "withdrawn_at", "when it was withdrawn, as there is a reason", null);
        }
        return row.withdrawnAt() == null ? null : new Grading.Withdrawn(row.withdrawnAt(), row.withdrawnReason());
    }

    private List<SheetPlan> draw() {
        List<GradingTask.PromptTask> tasks = basis.prompts.values().stream()
                .filter(p -> p.calibration() == null)
                .map(p -> new GradingTask.PromptTask(p.key(), p.kind(), entries(p.key())))
                .toList();
        GradingTask task = new GradingTask(new TreeSet<>(basis.raters), tasks, barred());
        return Assignment.plan(task, PlanOptions.EVERYTHING, Resamples.generator(basis.seed));
    }

    private List<GradingTask.Entry> entries(String prompt) {
        return entries.getOrDefault(prompt, List.of());
    }

    private Set<GradingTask.Bar> barred() {
        Set<GradingTask.Bar> barred = new HashSet<>();
        for (KeyedPrompt prompt : basis.prompts.values()) {
            if (prompt.author() != null) {
                barred.add(new GradingTask.Bar(prompt.author(), prompt.key()));
            }
        }
        for (Gradable answer : basis.answers.values()) {
            String person = answer.candidate() == null
                    ? null
                    : Require.known(basis.candidates, answer.candidate()).person();
            if (person != null) {
                barred.add(new GradingTask.Bar(person, answer.key()));
            }
        }
        return barred;
    }

    private Map<Cell, Map<String, Mark>> marks() {
        Map<Cell, Map<String, Mark>> marks = new HashMap<>();
        for (Line<SheetRows.GradeRow> line : tables.lines(SheetRows.GRADES)) {
            SheetRows.GradeRow row = line.row();
            Cell cell = basis.cell(row);
            KeyedCriterion criterion = Require.known(basis.criteria, row.criterion());
            RubricRows.checkLevel(tables, line.at(), row.level(), criterion.highestLevel());
            if ((row.level() == null) != row.notApplicable()) {
                tables.faults()
                        .add(
                                line.at(),
                                "level",
                                "either a level or not_applicable true",
                                line.at().textOrNull("level"));
            } else if (!criterion.isFor(basis.prompt(cell.sheet().prompt()).kind())) {
                tables.faults()
                        .add(line.at(), "criterion", "a criterion that is for this kind of prompt", row.criterion());
            } else {
                marks.computeIfAbsent(cell, c -> new TreeMap<>())
                        .put(row.criterion(), new Mark(row.level(), row.notApplicable(), row.confidence()));
            }
        }
        return marks;
    }

    private Set<String> applicable(String prompt) {
        return applicable.computeIfAbsent(
                basis.prompt(prompt).kind(),
                kind -> basis.criteria.values().stream()
                        .filter(c -> c.isFor(kind))
                        .map(KeyedCriterion::key)
                        .collect(Collectors.toSet()));
    }

    /** The order of answers on each sheet: as given, or as drawn. */
    private Map<SheetKey, List<String>> orders(Map<SheetKey, SheetPlan> drawn) {
        Map<SheetKey, List<String>> orders = new HashMap<>();
        drawn.forEach((key, plan) -> orders.put(key, plan.answers()));
        tables.by(SheetRows.POSITIONS, r -> basis.cell(r).sheet())
                .forEach((key, unsorted) -> orders.put(key, order(key, unsorted)));
        return orders;
    }

    private List<String> order(SheetKey key, List<Line<SheetRows.PositionRow>> unsorted) {
        List<Line<SheetRows.PositionRow>> positions = unsorted.stream()
                .sorted(Comparator.comparingInt(l -> l.row().position()))
                .toList();
        List<Integer> places = positions.stream().map(l -> l.row().position()).toList();
        if (!places.equals(IntStream.rangeClosed(1, positions.size()).boxed().toList())) {
            tables.faults()
                    .add(
                            positions.get(0).at(),
                            "position",
                            "each of 1 to " + positions.size() + " once for the answers to " + key.prompt()
                                    + " on the sheet of " + key.rater(),
                            places.toString());
        }
        return positions.stream().map(l -> l.row().answer()).toList();
    }

    private List<KeyedSheet.KeyedAnswer> answers(
            SheetKey key, Map<SheetKey, List<String>> orders, SaidReader.Said said) {
        List<String> order = orders.getOrDefault(
                key,
                entries(key.prompt()).stream()
                        .map(GradingTask.Entry::answer)
                        .sorted()
                        .toList());
        return order.stream().map(answer -> said.of(new Cell(key, answer))).toList();
    }

    private boolean isComplete(SheetKey key, List<KeyedSheet.KeyedAnswer> onSheet) {
        Set<String> criteria = applicable(key.prompt());
        return onSheet.stream().allMatch(a -> a.marks().keySet().equals(criteria));
    }

    /** A sheet whose positions are listed may leave answers out; nothing can be said of those. */
    private void checkMarksAreOnSheets(Map<SheetKey, List<String>> orders) {
        said().forEach(line -> {
            SheetRows.OnSheet row = (SheetRows.OnSheet) line.row();
            List<String> onSheet = orders.get(basis.cell(row).sheet());
            if (onSheet != null && !onSheet.contains(row.answer())) {
                tables.faults().add(line.at(), "answer", "an answer that is on this rater's sheet", row.answer());
            }
        });
    }

    private void checkMarksBelongToSheets() {
        Set<SheetKey> known = tables.lines(SheetRows.SHEETS).stream()
                .map(Line::row)
                .map(r -> new SheetKey(r.rater(), r.prompt(), r.repeat()))
                .collect(Collectors.toSet());
        List<Line<?>> about = new ArrayList<>(tables.lines(SheetRows.POSITIONS));
        about.addAll(said());
        for (Line<?> line : about) {
            SheetRows.OnSheet row = (SheetRows.OnSheet) line.row();
            if (!known.contains(basis.cell(row).sheet())) {
                tables.faults()
                        .add(
                                line.at(),
                                "answer",
                                "an answer to a prompt that this rater has in " + tables.path(SheetRows.SHEETS),
                                row.answer());
            }
        }
    }

    /** Every row about an answer but its position. */
    private List<Line<?>> said() {
        List<Line<?>> all = new ArrayList<>();
        for (Table<?> table : SheetRows.SAID) {
            all.addAll(tables.lines(table));
        }
        return all;
    }
}
