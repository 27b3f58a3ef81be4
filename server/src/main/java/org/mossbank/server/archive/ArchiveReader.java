package org.mossbank.server.archive;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.function.LongSupplier;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.AnswerRows;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.calibration.rows.CalibrationTables;
import org.mossbank.server.candidate.CandidateRows;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.Faults;
import org.mossbank.server.files.JsonFile;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.Tables;
import org.mossbank.server.grading.rows.CalibratingSheets;
import org.mossbank.server.grading.rows.SheetReader;
import org.mossbank.server.grading.rows.SheetRows;
import org.mossbank.server.masking.MaskRows;
import org.mossbank.server.memo.rows.MemoRows;
import org.mossbank.server.prompt.PromptRows;
import org.mossbank.server.prompt.PromptRows.KeyedPrompt;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.readback.ReadBackRows;
import org.mossbank.server.reconciliation.rows.SplitRows;
import org.mossbank.server.rubric.KeyedCriterion;
import org.mossbank.server.rubric.KeyedVersion;
import org.mossbank.server.rubric.RubricHistory;
import org.mossbank.server.rubric.RubricRows;
import org.mossbank.server.run.RunRows;
import org.mossbank.server.shared.Progress;
import org.mossbank.server.source.SourceRows;
import org.mossbank.server.study.PeopleRows;
import org.mossbank.server.study.RuleTerms;
import tools.jackson.databind.JsonNode;

/** Reads an archive into a study, or into a list of everything that is wrong with it. */
final class ArchiveReader {
    private final ArchiveFiles files;
    private final Faults faults = new Faults();
    private final Map<String, String> paths = new HashMap<>();

    private ArchiveReader(ArchiveFiles files) {
        this.files = files;
    }

    /** What reading came to: a study if there are no faults. */
    record Reading(Optional<StudyArchive> study, List<Fault> faults) {}

    /**
     * @param freshSeed asked when the archive names no seed
     * @param now       when things count as done of which the archive does not say when
     */
    static Reading read(ArchiveFiles files, LongSupplier freshSeed, Instant now) {
        ArchiveReader reader = new ArchiveReader(files);
        Optional<StudyArchive> study = reader.study(freshSeed, now);
        return new Reading(study.filter(s -> reader.faults.isEmpty()), reader.faults.list());
    }

    private Optional<StudyArchive> study(LongSupplier freshSeed, Instant now) {
        if (!readPackage()) {
            return Optional.empty();
        }
        Tables tables = new Tables(files.all(), paths, faults);
        Optional<JsonNode> json = tables.textOf(Schemas.STUDY)
                .flatMap(text -> JsonFile.read(Require.known(paths, Schemas.STUDY), text, Schemas.STUDY_FILE, faults));
        boolean preparing = json.map(StudyFileReader::isPreparing).orElse(false);
        requireResource(Schemas.STUDY);
        (preparing ? Schemas.TABLES_WHILE_PREPARING : Schemas.REQUIRED_TABLES)
                .forEach(table -> requireResource(table.name()));
        Progress.stage("reading", Schemas.TABLES.stream().mapToLong(this::bytes).sum());
        Schemas.TABLES.forEach(table -> readTable(table, tables, !preparing));
        Progress.stage("checking", 0);
        tables.checkReferences();
        if (!faults.isEmpty() || json.isEmpty()) {
            return Optional.empty();
        }
        StudyArchive.Head head =
                new StudyFileReader(json.get(), Require.known(paths, Schemas.STUDY), faults).read(freshSeed, now);
        StudyArchive study = study(tables, head);
        checkCompleteness(study, tables);
        if (!faults.isEmpty()) {
            return Optional.empty();
        }
        if (preparing) {
            requireNone(tables, MemoRows.TABLES.stream());
        }
        if (preparing && study.kept().calibrations().isEmpty()) {
            requireNoSheets(tables);
            return Optional.of(study);
        }
        if (preparing) {
            requireCalibratingSheets(study, tables);
        }
        return Optional.of(study.withSheets(SheetReader.read(tables, basis(study))));
    }

    /** Everything but the sheets, which are read once all that they are about is right. */
    private static StudyArchive study(Tables tables, StudyArchive.Head head) {
        List<Prompts.NewKind> kinds = PromptRows.readKinds(tables);
        Set<String> kindKeys = kinds.stream().map(Prompts.NewKind::key).collect(Collectors.toSet());
        List<Answers.NewAnswer> answers = AnswerRows.read(tables);
        List<Specimens.NewSpecimen> specimens = AnswerRows.readSpecimens(tables);
        List<KeyedCriterion> criteria = RubricRows.read(tables, kindKeys);
        List<KeyedPrompt> prompts = PromptRows.read(tables, head.preparing());
        SpecimenUse.check(tables, specimens, prompts);
        Map<String, Integer> followUps = answers.stream()
                .collect(Collectors.toMap(
                        Answers.NewAnswer::key, a -> a.followUps().size()));
        KeyedVersion rubric = new KeyedVersion(head.rubric(), criteria);
        List<KeyedVersion> history = RubricHistory.read(tables, head.rubric().version(), kindKeys);
        return new StudyArchive(
                head,
                kinds,
                prompts,
                CandidateRows.read(tables),
                SourceRows.read(tables),
                answers,
                specimens,
                RunRows.read(tables),
                MaskRows.read(
                        tables,
                        answers.stream()
                                .collect(Collectors.toMap(Answers.NewAnswer::key, Answers.NewAnswer::wholeText))),
                rubric,
                history,
                PeopleRows.read(tables, head.round().closedAt() != null),
                ReadBackRows.read(tables),
                List.of(),
                RecordParts.Kept.read(
                        tables,
                        head.brief().rule().looks(),
                        calibrated(prompts, gradable(prompts, answers, specimens), rubric, history),
                        new RecordParts.Answered(
                                answer -> followUps.getOrDefault(answer, -1),
                                answers.stream()
                                        .collect(
                                                Collectors.toMap(Answers.NewAnswer::key, Answers.NewAnswer::prompt)))));
    }

    /** What may lie on sheets: a specimen only where raters calibrate by its prompt. */
    private static List<SheetReader.Gradable> gradable(
            List<KeyedPrompt> prompts, List<Answers.NewAnswer> answers, List<Specimens.NewSpecimen> specimens) {
        Set<String> calibrating = prompts.stream()
                .filter(p -> p.calibration() != null)
                .map(KeyedPrompt::key)
                .collect(Collectors.toSet());
        return Stream.concat(
                        answers.stream()
                                .map(a -> new SheetReader.Gradable(a.key(), a.prompt(), a.candidate(), a.wholeText())),
                        specimens.stream()
                                .filter(s -> calibrating.contains(s.prompt()))
                                .map(s -> new SheetReader.Gradable(s.key(), s.prompt(), null, s.text())))
                .toList();
    }

    private static CalibrationTables.Basis calibrated(
            List<KeyedPrompt> prompts,
            List<SheetReader.Gradable> answers,
            KeyedVersion rubric,
            List<KeyedVersion> history) {
        Map<String, Integer> ofPrompt = new HashMap<>();
        prompts.stream().filter(p -> p.calibration() != null).forEach(p -> ofPrompt.put(p.key(), p.calibration()));
        Map<String, Integer> ofAnswer = new HashMap<>();
        answers.stream()
                .filter(a -> ofPrompt.containsKey(a.prompt()))
                .forEach(a -> ofAnswer.put(a.key(), Require.known(ofPrompt, a.prompt())));
        return new CalibrationTables.Basis(published(rubric, history), rubric.criteria(), ofAnswer);
    }

    private static Set<Integer> published(KeyedVersion rubric, List<KeyedVersion> history) {
        return Stream.concat(history.stream(), Stream.of(rubric))
                .filter(v -> v.head().publishedAt() != null)
                .map(v -> v.head().version())
                .collect(Collectors.toSet());
    }

    private static SheetReader.Basis basis(StudyArchive study) {
        return new SheetReader.Basis(
                study.head().seed(),
                study.people().raters().stream()
                        .map(PeopleRows.KeyedRater::signInName)
                        .toList(),
                study.prompts(),
                study.candidates(),
                gradable(study.prompts(), study.answers(), study.specimens()),
                study.rubric().criteria(),
                Stream.concat(study.history().stream(), Stream.of(study.rubric()))
                        .flatMap(v -> v.criteria().stream())
                        .flatMap(c -> c.traits().stream())
                        .collect(Collectors.toSet()),
                published(study.rubric(), study.history()));
    }

    private void requireNoSheets(Tables tables) {
        requireNone(tables, Stream.concat(SheetRows.TABLES.stream(), SplitRows.TABLES.stream()));
    }

    private void requireNone(Tables tables, Stream<Table<?>> some) {
        some.filter(table -> !tables.lines(table).isEmpty())
                .forEach(table -> faults.add(
                        tables.lines(table).get(0).at(), null, "no rows, as the study is being prepared", null));
    }

    /** A study that is being prepared has sheets to calibrate by, and no others. */
    private void requireCalibratingSheets(StudyArchive study, Tables tables) {
        requireResource(SheetRows.SHEETS.name());
        Set<String> calibrating = study.prompts().stream()
                .filter(p -> p.calibration() != null)
                .map(KeyedPrompt::key)
                .collect(Collectors.toSet());
        CalibratingSheets.refuseOthers(tables, calibrating);
    }

    private boolean readPackage() {
        if (!files.has(ArchiveFiles.PACKAGE)) {
            faults.add(Fault.ofFile(ArchiveFiles.PACKAGE, "this file, at the top of the archive"));
            return false;
        }
        Optional<JsonNode> json = files.text(ArchiveFiles.PACKAGE, faults)
                .flatMap(text -> JsonFile.read(ArchiveFiles.PACKAGE, text, Schemas.PACKAGE_FILE, faults));
        if (json.isEmpty()) {
            return false;
        }
        int index = 0;
        for (JsonNode resource : json.get().path("resources")) {
            String pointer = "/resources/" + index++;
            String name = resource.path("name").asString();
            String path = resource.path("path").asString();
            if (!Schemas.RESOURCES.contains(name)) {
                faults.add(new Fault(
                        ArchiveFiles.PACKAGE,
                        null,
                        pointer + "/name",
                        "one of " + String.join(", ", Schemas.RESOURCES),
                        name));
            } else if (paths.putIfAbsent(name, path) != null) {
                faults.add(new Fault(ArchiveFiles.PACKAGE, null, pointer + "/name", "each resource once", name));
            } else if (!files.has(path)) {
                faults.add(new Fault(ArchiveFiles.PACKAGE, null, pointer + "/path", "a file in the archive", path));
                paths.remove(name);
            }
        }
        return true;
    }

    private void requireResource(String name) {
        if (!paths.containsKey(name)) {
            faults.add(new Fault(
                    ArchiveFiles.PACKAGE, null, "/resources", "a resource named " + name + " with its file", null));
        }
    }

    private void readTable(Table<?> table, Tables tables, boolean mustHaveRows) {
        boolean empty = tables.read(table).map(List::isEmpty).orElse(false) && faults.isEmpty();
        if (empty && mustHaveRows && Schemas.REQUIRED_TABLES.contains(table)) {
            faults.add(Fault.ofFile(tables.path(table), "at least one row"));
        }
        Progress.advance(bytes(table));
    }

    private long bytes(Table<?> table) {
        return files.size(paths.get(table.name()));
    }

    private void checkCompleteness(StudyArchive study, Tables tables) {
        checkGate(study, tables);
        checkFollowUps(study, tables);
        if (study.head().preparing()) {
            return;
        }
        Set<String> answered = gradable(study.prompts(), study.answers(), study.specimens()).stream()
                .map(SheetReader.Gradable::prompt)
                .collect(Collectors.toSet());
        for (KeyedPrompt prompt : study.prompts()) {
            if (!answered.contains(prompt.key())) {
                faults.add(Fault.ofFile(
                        tables.path(AnswerRows.ANSWERS), "at least one answer to the prompt " + prompt.key()));
            }
        }
        if (study.rubric().criteria().stream().allMatch(c -> c.weight() == 0)) {
            faults.add(
                    new Fault(tables.path(RubricRows.CRITERIA), null, "weight", "at least one weight above 0", null));
        }
    }

    private void checkGate(StudyArchive study, Tables tables) {
        RuleTerms.GateTerms gate = study.head().brief().rule().gate();
        if (gate == null) {
            return;
        }
        Optional<KeyedCriterion> gated = study.rubric().criteria().stream()
                .filter(c -> c.key().equals(gate.criterion()))
                .findFirst();
        if (gated.isEmpty()) {
            faults.add(new Fault(
                    tables.path(Schemas.STUDY),
                    null,
                    "/decisionRule/gate/criterion",
                    "a criterion of " + tables.path(RubricRows.CRITERIA),
                    gate.criterion()));
        } else if (gate.level() > gated.get().highestLevel()) {
            faults.add(new Fault(
                    tables.path(Schemas.STUDY),
                    null,
                    "/decisionRule/gate/level",
                    "a level of the criterion, at most " + gated.get().highestLevel(),
                    String.valueOf(gate.level())));
        }
    }

    private void checkFollowUps(StudyArchive study, Tables tables) {
        Integer most = study.head().mostFollowUps();
        study.answers().stream()
                .filter(a -> most != null && a.followUps().size() > most)
                .forEach(a -> faults.add(Fault.ofFile(
                        tables.path(AnswerRows.TURNS),
                        "at most %d follow-ups of an answer, as the study says; %s has %d"
                                .formatted(most, a.key(), a.followUps().size()))));
    }
}
