package org.mossbank.server.evidence.rows;

import jakarta.validation.Validation;
import jakarta.validation.Validator;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.TreeMap;
import java.util.function.Predicate;
import java.util.function.ToIntFunction;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;
import org.mossbank.server.trial.CheckContent;
import org.mossbank.server.trial.InputEnd;
import org.mossbank.server.trial.TrialResult;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.DeserializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Checks, trials and what people tried, as rows of the open format with JSON in files of their own. */
public final class EvidenceRows {
    private static final int MOST_REPETITIONS = 10;
    private static final int MOST_ARGUMENTS = 40;
    private static final int LONGEST_ARGUMENTS = 200_000;
    private static final int MOST_BYTES = 4 << 20;
    private static final Validator VALIDATOR =
            Validation.buildDefaultValidatorFactory().getValidator();
    private static final JsonMapper MAPPER = JsonMapper.builder()
            .enable(DeserializationFeature.FAIL_ON_UNKNOWN_PROPERTIES)
            .enable(DeserializationFeature.FAIL_ON_NULL_FOR_PRIMITIVES)
            .build();

    @TableForm(name = "checks", meaning = "What prompts ask of an answer's code.", key = "prompt")
    record CheckRow(
            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column("Path in the archive of the check, JSON") @NotNull
            String file,

            @Column("When it was written last, ISO 8601 with zone") @NotNull
            Instant changedAt,

            @Column("Name of who wrote it") @NotNull @Size(min = 1, max = 200)
            String changedBy) {}

    @TableForm(
            name = "trials",
            meaning = "What came of trying answers' code by the check of their prompt.",
            key = {"answer", "turn", "repetition"})
    record TrialRow(
            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Which reply: 0 for the first, then the follow-ups") @Min(0) @Max(FollowUp.MOST)
            int turn,

            @Column("Which of several trials of it, from 1") @Min(1) @Max(MOST_REPETITIONS)
            int repetition,

            @Column("When it ended, ISO 8601 with zone") @NotNull
            Instant endedAt,

            @Column("Path in the archive of what came of it, with its log, JSON") @NotNull
            String file) {}

    @TableForm(
            name = "repairs",
            meaning = "What people changed of answers' code so that it can be tried; the answers stay.",
            key = {"answer", "number"})
    record RepairRow(
            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("Which repair of it, from 1, oldest first") @Min(1) @Max(100_000)
            int number,

            @Column(value = "The rater who made it; empty for a lead", in = "raters.rater") @Nullable
            String rater,

            @Column("Lines that were changed; one that was replaced counts once") @Min(1) @Max(10_000_000)
            int lines,

            @Column("When, ISO 8601 with zone") @NotNull Instant madeAt,

            @Column("Path in the archive of the changed files and what came of trying them, JSON") @NotNull
            String file) {}

    @TableForm(
            name = "own-inputs",
            meaning = "Inputs of their own that raters gave the programs of answers on a sheet.")
    record InputRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The prompt of the sheet", in = "prompts.prompt") @NotNull
            String prompt,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat,

            @Column("When, ISO 8601 with zone") @NotNull Instant at,

            @Column("Arguments after the command, in their order, a JSON array of texts")
            @NotNull
            @Size(max = LONGEST_ARGUMENTS)
            String arguments,

            @Column("Standard input; empty if there was none") @Size(max = 20_000) @Nullable
            String input) {}

    @TableForm(
            name = "trials-seen",
            meaning = "When raters first saw the trials of an answer.",
            key = {"rater", "answer", "repeat"})
    record SeenRow(
            @Column(value = "The rater", in = "raters.rater") @NotNull
            String rater,

            @Column(value = "The answer", in = "answers.answer") @NotNull
            String answer,

            @Column("true if it is the sheet that came a second time; otherwise empty or false")
            boolean repeat,

            @Column("When, ISO 8601 with zone") @NotNull Instant at,

            @Column("What they had graded it by then, on the criterion that trials speak for; empty if nothing")
            @Min(0)
            @Max(9)
            @Nullable
            Integer level) {}

    private static final Table<CheckRow> CHECKS = Table.of(CheckRow.class);
    private static final Table<TrialRow> TRIALS = Table.of(TrialRow.class);
    private static final Table<RepairRow> REPAIRS = Table.of(RepairRow.class);
    private static final Table<InputRow> INPUTS = Table.of(InputRow.class);
    private static final Table<SeenRow> SEEN = Table.of(SeenRow.class);

    public static final List<Table<?>> TABLES = List.of(CHECKS, TRIALS, REPAIRS, PictureRows.PICTURES, INPUTS, SEEN);

    private EvidenceRows() {}

    /** What a file of a repair holds. */
    record RepairFile(Map<String, String> files, List<FileChange> changes, TrialResult result) {}

    /**
     * @param turns    how many follow-ups an answer has, by its key
     * @param promptOf the prompt of an answer, by their keys
     */
    public static KeyedEvidence read(Tables tables, ToIntFunction<String> turns, Map<String, String> promptOf) {
        Set<String> checked = new HashSet<>();
        tables.lines(CHECKS).forEach(l -> checked.add(l.row().prompt()));
        Predicate<String> isChecked = answer -> Optional.ofNullable(promptOf.get(answer))
                .filter(checked::contains)
                .isPresent();
        PictureRows pictures = new PictureRows(tables);
        KeyedEvidence read = new KeyedEvidence(
                tables.lines(CHECKS).stream()
                        .flatMap(l -> json(l, CheckContent.class, tables)
                                .map(c -> new KeyedEvidence.KeyedCheck(
                                        l.row().prompt(),
                                        c,
                                        l.row().changedAt(),
                                        l.row().changedBy()))
                                .stream())
                        .toList(),
                tables.lines(TRIALS).stream()
                        .flatMap(l -> trial(l, pictures, turns, isChecked).stream())
                        .toList(),
                tables.lines(REPAIRS).stream()
                        .flatMap(l -> repair(l, pictures, isChecked).stream())
                        .toList(),
                tables.lines(INPUTS).stream()
                        .flatMap(l -> input(l, tables).stream())
                        .toList(),
                tables.lines(SEEN).stream()
                        .map(Line::row)
                        .map(r -> new KeyedEvidence.KeyedSeen(r.rater(), r.answer(), r.repeat(), r.at(), r.level()))
                        .toList());
        pictures.refuseOthers();
        return read;
    }

    private static Optional<KeyedEvidence.KeyedTrial> trial(
            Line<TrialRow> line, PictureRows pictures, ToIntFunction<String> turns, Predicate<String> isChecked) {
        Tables tables = pictures.tables();
        TrialRow row = line.row();
        if (row.turn() > turns.applyAsInt(row.answer())) {
            tables.faults().add(line.at(), "turn", "a reply that the answer has", String.valueOf(row.turn()));
        }
        requireCheck(line, row.answer(), tables, isChecked);
        return json(line, TrialResult.class, tables)
                .filter(r -> isWhole(line, r, tables))
                .map(r -> new KeyedEvidence.KeyedTrial(
                        row.answer(), row.turn(), row.repetition(), r, pictures.of(row.file(), r), row.endedAt()));
    }

    private static Optional<KeyedEvidence.KeyedRepair> repair(
            Line<RepairRow> line, PictureRows pictures, Predicate<String> isChecked) {
        Tables tables = pictures.tables();
        RepairRow row = line.row();
        requireCheck(line, row.answer(), tables, isChecked);
        return json(line, RepairFile.class, tables)
                .filter(f -> isWhole(line, f.result, tables))
                .map(f -> new KeyedEvidence.KeyedRepair(
                        row.answer(),
                        row.rater(),
                        new TreeMap<>(f.files),
                        f.changes,
                        row.lines(),
                        f.result,
                        pictures.of(row.file(), f.result),
                        row.madeAt()));
    }

    private static Optional<KeyedEvidence.KeyedInput> input(Line<InputRow> line, Tables tables) {
        InputRow row = line.row();
        try {
            List<String> arguments = List.of(MAPPER.readValue(row.arguments(), String[].class));
            if (arguments.size() <= MOST_ARGUMENTS) {
                return Optional.of(new KeyedEvidence.KeyedInput(
                        row.rater(),
                        row.prompt(),
                        row.repeat(),
                        new InputEnd.Given(arguments, Objects.requireNonNullElse(row.input(), "")),
                        row.at()));
            }
        } catch (JacksonException | NullPointerException e) {
            // Told below, as what is too long is.
        }
        tables.faults().add(line.at(), "arguments", "a JSON array of at most " + MOST_ARGUMENTS + " texts", null);
        return Optional.empty();
    }

    private static void requireCheck(Line<?> line, String answer, Tables tables, Predicate<String> isChecked) {
        if (!isChecked.test(answer)) {
            tables.faults().add(line.at(), "answer", "an answer to a prompt that has a check", answer);
        }
    }

    /** What a trial says as a whole is what its items say. */
    private static boolean isWhole(Line<?> line, TrialResult result, Tables tables) {
        boolean whole =
                !result.items().isEmpty() && TrialSummary.of(result.items()).equals(result.summary());
        if (!whole) {
            tables.faults().add(line.at(), "file", "a trial that says as a whole what its items say", null);
        }
        return whole;
    }

    /** Whatever is kept is what the code itself would write, within the limits that it has for everybody. */
    private static <T> Optional<T> json(Line<?> line, Class<T> type, Tables tables) {
        return tables.bytes(line.at(), "file", MOST_BYTES).flatMap(bytes -> {
            try {
                T read = MAPPER.readValue(bytes, type);
                if (read != null && VALIDATOR.validate(read).isEmpty()) {
                    return Optional.of(read);
                }
            } catch (JacksonException | IllegalArgumentException | NullPointerException e) {
                // Told below, as what is not valid is.
            }
            tables.faults().add(line.at(), "file", "JSON as Mossbank writes it, within its limits", null);
            return Optional.empty();
        });
    }

    public static void write(KeyedEvidence evidence, WrittenFiles out) {
        for (KeyedEvidence.KeyedCheck check : evidence.checks()) {
            String path = "checks/" + check.prompt() + ".json";
            out.put(path, pretty(check.content()));
            out.add(CHECKS, new CheckRow(check.prompt(), path, check.changedAt(), check.changedBy()));
        }
        for (KeyedEvidence.KeyedTrial trial : evidence.trials()) {
            String path = "trials/%s-%d-%d.json".formatted(trial.answer(), trial.turn(), trial.repetition());
            out.put(path, pretty(trial.result()));
            PictureRows.write(path, trial.pictures(), out);
            out.add(TRIALS, new TrialRow(trial.answer(), trial.turn(), trial.repetition(), trial.endedAt(), path));
        }
        Map<String, Integer> numbers = new HashMap<>();
        for (KeyedEvidence.KeyedRepair repair : evidence.repairs()) {
            int number = numbers.merge(repair.answer(), 1, Integer::sum);
            String path = "repairs/%s-%d.json".formatted(repair.answer(), number);
            out.put(path, pretty(new RepairFile(repair.files(), repair.changes(), repair.result())));
            PictureRows.write(path, repair.pictures(), out);
            out.add(
                    REPAIRS,
                    new RepairRow(repair.answer(), number, repair.author(), repair.lines(), repair.madeAt(), path));
        }
        evidence.inputs()
                .forEach(i -> out.add(
                        INPUTS,
                        new InputRow(
                                i.rater(),
                                i.prompt(),
                                i.repeat(),
                                i.at(),
                                MAPPER.writeValueAsString(i.given().arguments()),
                                i.given().input().isEmpty() ? null : i.given().input())));
        evidence.seen().forEach(s -> out.add(SEEN, new SeenRow(s.rater(), s.answer(), s.repeat(), s.at(), s.level())));
    }

    private static byte[] pretty(Object content) {
        return (MAPPER.writerWithDefaultPrettyPrinter().writeValueAsString(content) + "\n")
                .getBytes(StandardCharsets.UTF_8);
    }
}
