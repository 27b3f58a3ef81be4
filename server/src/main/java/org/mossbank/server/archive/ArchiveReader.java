package org.mossbank.server.archive;

import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.LongSupplier;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.Faults;
import org.mossbank.server.files.JsonFile;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.prompt.Prompts;
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
        Optional<JsonNode> json = readStudyFile();
        boolean preparing = json.map(StudyFileReader::isPreparing).orElse(false);
        requireResource(Schemas.STUDY);
        (preparing ? Schemas.TABLES_WHILE_PREPARING : Schemas.REQUIRED_TABLES).forEach(this::requireResource);
        ArchiveTables tables = new ArchiveTables(files, paths, faults);
        for (String table : Schemas.TABLES) {
            readTable(table, tables, !preparing);
        }
        tables.checkReferences();
        if (!faults.isEmpty() || json.isEmpty()) {
            return Optional.empty();
        }
        StudyFileReader studyFile = new StudyFileReader(json.get(), paths.get(Schemas.STUDY), faults);
        StudyArchive.Head head = studyFile.read(freshSeed, now);
        Parts parts = parts(tables, head, studyFile.mostFollowUps());
        checkCompleteness(parts, head, tables);
        if (!faults.isEmpty()) {
            return Optional.empty();
        }
        List<StudyArchive.ArchiveSheet> sheets = preparing
                ? noSheets(tables)
                : new SheetReader(tables, head.seed(), parts.prompts, parts.candidates, parts.answers, parts.rubric)
                        .read();
        return Optional.of(new StudyArchive(
                head,
                tables.rows("kinds").stream()
                        .map(r -> new Prompts.NewKind(r.text("kind"), r.text("name")))
                        .toList(),
                parts.prompts,
                parts.candidates,
                parts.answers,
                parts.collection,
                parts.masking,
                parts.rubric,
                parts.history,
                parts.people,
                sheets));
    }

    private record Parts(
            List<StudyArchive.ArchivePrompt> prompts,
            List<StudyArchive.ArchiveCandidate> candidates,
            List<Answers.NewAnswer> answers,
            StudyArchive.ArchiveCollection collection,
            StudyArchive.ArchiveMasking masking,
            StudyArchive.ArchiveRubric rubric,
            List<StudyArchive.ArchiveRubric> history,
            StudyArchive.People people) {}

    private static Parts parts(ArchiveTables tables, StudyArchive.Head head, @Nullable Integer mostFollowUps) {
        RubricTables rubric = new RubricTables(tables);
        List<Answers.NewAnswer> answers = new AnswerTables(tables).read();
        return new Parts(
                new PromptTables(tables, head.preparing()).read(),
                new CandidateTables(tables).read(),
                answers,
                new CollectionTables(tables).read(mostFollowUps),
                new MaskTables(tables).read(answers),
                new StudyArchive.ArchiveRubric(head.rubric(), rubric.criteria()),
                rubric.history(head.rubric().version()),
                new PeopleTables(tables).read(head.round().closedAt() != null));
    }

    private List<StudyArchive.ArchiveSheet> noSheets(ArchiveTables tables) {
        for (String table : Schemas.TABLES_OF_A_ROUND) {
            if (!tables.rows(table).isEmpty()) {
                faults.add(tables.rows(table).get(0), null, "no rows, as the study is being prepared", null);
            }
        }
        return List.of();
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

    private Optional<JsonNode> readStudyFile() {
        return Optional.ofNullable(paths.get(Schemas.STUDY))
                .flatMap(path -> files.text(path, faults)
                        .flatMap(text -> JsonFile.read(path, text, Schemas.STUDY_FILE, faults)));
    }

    private void readTable(String name, ArchiveTables tables, boolean mustHaveRows) {
        String path = paths.get(name);
        if (path == null) {
            return;
        }
        Optional<String> text = files.text(path, faults);
        List<TableRow> rows =
                text.map(t -> Schemas.table(name).read(path, t, faults)).orElse(List.of());
        tables.put(name, rows);
        boolean empty = text.isPresent() && rows.isEmpty() && faults.isEmpty();
        if (empty && mustHaveRows && Schemas.REQUIRED_TABLES.contains(name)) {
            faults.add(Fault.ofFile(path, "at least one row"));
        }
    }

    private void checkCompleteness(Parts parts, StudyArchive.Head head, ArchiveTables tables) {
        RuleTerms.GateTerms gate = head.brief().rule().gate();
        if (gate != null
                && parts.rubric.criteria().stream().noneMatch(c -> c.key().equals(gate.criterion()))) {
            faults.add(new Fault(
                    tables.path(Schemas.STUDY),
                    null,
                    "/decisionRule/gate/criterion",
                    "a criterion of " + tables.path("criteria"),
                    gate.criterion()));
        }
        if (head.preparing()) {
            return;
        }
        for (StudyArchive.ArchivePrompt prompt : parts.prompts) {
            if (parts.answers.stream().noneMatch(a -> a.prompt().equals(prompt.key()))) {
                faults.add(Fault.ofFile(tables.path("answers"), "at least one answer to the prompt " + prompt.key()));
            }
        }
        if (parts.rubric.criteria().stream().allMatch(c -> c.weight() == 0)) {
            faults.add(new Fault(tables.path("criteria"), null, "weight", "at least one weight above 0", null));
        }
    }
}
