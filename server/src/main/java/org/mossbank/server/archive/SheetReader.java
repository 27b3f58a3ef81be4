package org.mossbank.server.archive;

import java.time.Instant;
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
import org.mossbank.core.estimate.Resamples;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.grading.Confidence;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Mark;

/** Puts sheets together from what an archive says of them, and draws from the seed what it leaves open. */
final class SheetReader {
    private final ArchiveTables tables;
    private final long seed;
    private final Map<String, StudyArchive.ArchivePrompt> prompts;
    private final Map<String, StudyArchive.ArchiveCandidate> candidates;
    private final Map<String, Answers.NewAnswer> answers;
    private final StudyArchive.ArchiveRubric rubric;

    /** A sheet in the words of an archive. */
    record SheetKey(String rater, String prompt, boolean repeat) {}

    /** An answer on a sheet. */
    record Cell(SheetKey sheet, String answer) {}

    private static final List<String> ABOUT_ANSWERS = List.of("grades", "reasons", "judgements", "coverage", "remarks");
    private static final List<String> ON_SHEETS =
            List.of("positions", "grades", "reasons", "judgements", "coverage", "remarks");

    SheetReader(
            ArchiveTables tables,
            long seed,
            List<StudyArchive.ArchivePrompt> prompts,
            List<StudyArchive.ArchiveCandidate> candidates,
            List<Answers.NewAnswer> answers,
            StudyArchive.ArchiveRubric rubric) {
        this.tables = tables;
        this.seed = seed;
        this.prompts = prompts.stream().collect(Collectors.toMap(StudyArchive.ArchivePrompt::key, Function.identity()));
        this.candidates =
                candidates.stream().collect(Collectors.toMap(StudyArchive.ArchiveCandidate::key, Function.identity()));
        this.answers = answers.stream().collect(Collectors.toMap(Answers.NewAnswer::key, Function.identity()));
        this.rubric = rubric;
    }

    List<StudyArchive.ArchiveSheet> read() {
        Map<SheetKey, SheetPlan> drawn = new LinkedHashMap<>();
        draw().forEach(p -> drawn.put(new SheetKey(p.rater(), p.prompt(), false), p));
        SaidReader.Said said = new SaidReader(tables, prompts, answers).read(marks());
        Map<SheetKey, List<String>> orders = orders(drawn);
        checkMarksAreOnSheets(orders);
        List<StudyArchive.ArchiveSheet> sheets = tables.has("sheets")
                ? listed(orders, said)
                : drawn.entrySet().stream()
                        .map(e -> unlisted(e.getKey(), e.getValue(), orders, said))
                        .collect(Collectors.toCollection(ArrayList::new));
        sheets.sort(Comparator.comparing(StudyArchive.ArchiveSheet::rater)
                .thenComparingInt(StudyArchive.ArchiveSheet::place));
        return sheets;
    }

    private StudyArchive.ArchiveSheet unlisted(
            SheetKey key, SheetPlan plan, Map<SheetKey, List<String>> orders, SaidReader.Said said) {
        List<StudyArchive.ArchiveSheetAnswer> onSheet = answers(key, orders, said);
        return new StudyArchive.ArchiveSheet(
                key.rater(), key.prompt(), plan.place(), false, complete(key, onSheet), null, null, onSheet);
    }

    private List<StudyArchive.ArchiveSheet> listed(Map<SheetKey, List<String>> orders, SaidReader.Said said) {
        checkMarksBelongToSheets();
        List<StudyArchive.ArchiveSheet> sheets = new ArrayList<>();
        for (TableRow row : tables.rows("sheets")) {
            SheetKey key = new SheetKey(row.text("rater"), row.text("prompt"), row.truth("repeat"));
            List<StudyArchive.ArchiveSheetAnswer> onSheet = answers(key, orders, said);
            boolean sent = row.textOrNull("sent_at") != null;
            if (sent && !complete(key, onSheet)) {
                tables.faults()
                        .add(row, "sent_at", "nothing, as grades are missing on this sheet", row.text("sent_at"));
            }
            sheets.add(new StudyArchive.ArchiveSheet(
                    key.rater(),
                    key.prompt(),
                    row.integer("place") - 1,
                    key.repeat(),
                    sent,
                    row.instantOrNull("sent_at"),
                    withdrawn(row),
                    onSheet));
        }
        return sheets;
    }

    private Grading.@Nullable Withdrawn withdrawn(TableRow row) {
        Instant at = row.instantOrNull("withdrawn_at");
        return at == null ? null : new Grading.Withdrawn(at, row.text("withdrawn_reason"));
    }

    private List<SheetPlan> draw() {
        List<GradingTask.PromptTask> tasks = prompts.values().stream()
                .map(p -> new GradingTask.PromptTask(p.key(), p.kind(), entries(p.key())))
                .toList();
        TreeSet<String> raters =
                tables.rows("raters").stream().map(r -> r.text("rater")).collect(Collectors.toCollection(TreeSet::new));
        GradingTask task = new GradingTask(raters, tasks, barred());
        return Assignment.plan(task, PlanOptions.EVERYTHING, Resamples.generator(seed));
    }

    private List<GradingTask.Entry> entries(String prompt) {
        return answers.values().stream()
                .filter(a -> a.prompt().equals(prompt))
                .map(a -> new GradingTask.Entry(a.key(), a.candidate()))
                .toList();
    }

    private Set<GradingTask.Bar> barred() {
        Set<GradingTask.Bar> barred = new HashSet<>();
        for (StudyArchive.ArchivePrompt prompt : prompts.values()) {
            if (prompt.author() != null) {
                barred.add(new GradingTask.Bar(prompt.author(), prompt.key()));
            }
        }
        for (Answers.NewAnswer answer : answers.values()) {
            String person = candidates.get(answer.candidate()).person();
            if (person != null) {
                barred.add(new GradingTask.Bar(person, answer.key()));
            }
        }
        return barred;
    }

    /** The sheet and answer that a row of positions, grades or reasons is about. */
    private Cell cell(TableRow row) {
        return cell(row, answers);
    }

    static Cell cell(TableRow row, Map<String, Answers.NewAnswer> answers) {
        String answer = row.text("answer");
        return new Cell(new SheetKey(row.text("rater"), answers.get(answer).prompt(), row.truth("repeat")), answer);
    }

    private Map<Cell, Map<String, Mark>> marks() {
        Map<Cell, Map<String, Mark>> marks = new HashMap<>();
        for (TableRow row : tables.rows("grades")) {
            String criterion = row.text("criterion");
            Cell cell = cell(row);
            if ((row.integerOrNull("level") == null) != row.truth("not_applicable")) {
                tables.faults().add(row, "level", "either a level or not_applicable true", row.textOrNull("level"));
            } else if (!applicable(cell.sheet().prompt()).contains(criterion)) {
                tables.faults().add(row, "criterion", "a criterion that is for this kind of prompt", criterion);
            } else {
                marks.computeIfAbsent(cell, c -> new TreeMap<>())
                        .put(
                                criterion,
                                new Mark(
                                        row.integerOrNull("level"),
                                        row.truth("not_applicable"),
                                        ArchiveTables.word(Confidence.class, row.textOrNull("confidence"))));
            }
        }
        return marks;
    }

    private Set<String> applicable(String prompt) {
        String kind = prompts.get(prompt).kind();
        return rubric.criteria().stream()
                .filter(c -> c.kinds().isEmpty() || c.kinds().contains(kind))
                .map(StudyArchive.ArchiveCriterion::key)
                .collect(Collectors.toSet());
    }

    /** The order of answers on each sheet: as given, or as drawn. */
    private Map<SheetKey, List<String>> orders(Map<SheetKey, SheetPlan> drawn) {
        Map<SheetKey, List<String>> orders = new HashMap<>();
        drawn.forEach((key, plan) -> orders.put(key, plan.answers()));
        Map<SheetKey, List<TableRow>> given =
                tables.rows("positions").stream().collect(Collectors.groupingBy(r -> cell(r).sheet()));
        given.forEach((key, unsorted) -> {
            List<TableRow> positions = unsorted.stream()
                    .sorted(Comparator.comparingInt(r -> r.integer("position")))
                    .toList();
            List<Integer> places =
                    positions.stream().map(r -> r.integer("position")).toList();
            if (!places.equals(
                    IntStream.rangeClosed(1, positions.size()).boxed().toList())) {
                tables.faults()
                        .add(
                                positions.get(0),
                                "position",
                                "each of 1 to " + positions.size() + " once for the answers to " + key.prompt()
                                        + " on the sheet of " + key.rater(),
                                places.toString());
            }
            orders.put(key, positions.stream().map(r -> r.text("answer")).toList());
        });
        return orders;
    }

    private List<StudyArchive.ArchiveSheetAnswer> answers(
            SheetKey key, Map<SheetKey, List<String>> orders, SaidReader.Said said) {
        List<String> order = orders.getOrDefault(
                key,
                entries(key.prompt()).stream()
                        .map(GradingTask.Entry::answer)
                        .sorted()
                        .toList());
        return order.stream()
                .map(answer -> {
                    Cell cell = new Cell(key, answer);
                    return new StudyArchive.ArchiveSheetAnswer(
                            answer,
                            said.reasons().getOrDefault(cell, ""),
                            said.marks().getOrDefault(cell, Map.of()),
                            said.judgements().getOrDefault(cell, StudyArchive.ArchiveJudgement.NONE),
                            said.coverage().getOrDefault(cell, Map.of()),
                            said.remarks().getOrDefault(cell, List.of()));
                })
                .toList();
    }

    private boolean complete(SheetKey key, List<StudyArchive.ArchiveSheetAnswer> onSheet) {
        Set<String> criteria = applicable(key.prompt());
        return onSheet.stream().allMatch(a -> a.marks().keySet().equals(criteria));
    }

    /** A sheet whose positions are listed may leave answers out; nothing can be said of those. */
    private void checkMarksAreOnSheets(Map<SheetKey, List<String>> orders) {
        for (String table : ABOUT_ANSWERS) {
            for (TableRow row : tables.rows(table)) {
                List<String> onSheet = orders.get(cell(row).sheet());
                if (onSheet != null && !onSheet.contains(row.text("answer"))) {
                    tables.faults().add(row, "answer", "an answer that is on this rater's sheet", row.text("answer"));
                }
            }
        }
    }

    private void checkMarksBelongToSheets() {
        Set<SheetKey> known = new HashSet<>();
        tables.rows("sheets")
                .forEach(r -> known.add(new SheetKey(r.text("rater"), r.text("prompt"), r.truth("repeat"))));
        for (String table : ON_SHEETS) {
            for (TableRow row : tables.rows(table)) {
                if (!known.contains(cell(row).sheet())) {
                    tables.faults()
                            .add(
                                    row,
                                    "answer",
                                    "an answer to a prompt that this rater has in " + tables.path("sheets"),
                                    row.text("answer"));
                }
            }
        }
    }
}
