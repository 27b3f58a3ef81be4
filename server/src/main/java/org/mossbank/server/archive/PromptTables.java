package org.mossbank.server.archive;

import java.util.ArrayList;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.files.TableRow;
import org.mossbank.server.prompt.KeyPoint;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import org.mossbank.server.prompt.StartingFile;
import org.mossbank.server.prompt.TaskSize;
import org.mossbank.server.prompt.Wording;

/** Reads prompts from their tables and files. */
final class PromptTables {
    private static final Pattern PATH = Pattern.compile(StartingFile.PATH);

    private final ArchiveTables tables;
    private final boolean preparing;

    PromptTables(ArchiveTables tables, boolean preparing) {
        this.tables = tables;
        this.preparing = preparing;
    }

    List<StudyArchive.ArchivePrompt> read() {
        List<StudyArchive.ArchivePrompt> prompts = new ArrayList<>();
        Map<String, TableRow> byKey = new HashMap<>();
        tables.rows("prompts").forEach(r -> byKey.put(r.text("prompt"), r));
        for (TableRow row : tables.rows("prompts")) {
            checkVariant(row, byKey);
            prompts.add(new StudyArchive.ArchivePrompt(
                    row.text("prompt"),
                    row.text("kind"),
                    content(row),
                    row.textOrNull("author"),
                    row.textOrNull("variant_of"),
                    ArchiveTables.word(Wording.class, row.textOrNull("wording")),
                    fault(row)));
        }
        return prompts;
    }

    private void checkVariant(TableRow row, Map<String, TableRow> byKey) {
        String of = row.textOrNull("variant_of");
        if (of == null) {
            return;
        }
        TableRow base = byKey.get(of);
        if (of.equals(row.text("prompt")) || (base != null && base.textOrNull("variant_of") != null)) {
            tables.faults().add(row, "variant_of", "a prompt that is no variant itself", of);
        }
        if (row.textOrNull("wording") == null) {
            tables.faults().add(row, "wording", "vague, exact or other, as it is a variant", null);
        }
    }

    private PromptContent content(TableRow row) {
        String key = row.text("prompt");
        String request = tables.text(row, "file").orElse("");
        if (request.isBlank() && !preparing) {
            tables.faults().add(row, "file", "a file with text", row.textOrNull("file"));
        }
        List<StartingFile> files = startingFiles(key);
        return new PromptContent(
                row.text("title"),
                row.text("language"),
                request,
                ArchiveTables.list(row.text("areas")),
                ArchiveTables.word(TaskSize.class, row.textOrNull("size")),
                tables.rows("constraints", "prompt", key).stream()
                        .map(r -> r.text("text"))
                        .toList(),
                files,
                origin(row),
                tables.rows("key-points", "prompt", key).stream()
                        .map(this::keyPoint)
                        .filter(Objects::nonNull)
                        .toList(),
                tables.text(row, "reference_file").orElse(""),
                followUps(key));
    }

    private List<StartingFile> startingFiles(String prompt) {
        List<StartingFile> files = new ArrayList<>();
        Set<String> seen = new HashSet<>();
        for (TableRow row : tables.rows("starting-code", "prompt", prompt)) {
            String path = row.text("path");
            if (!PATH.matcher(path).matches()) {
                tables.faults().add(row, "path", "a relative path such as src/Buoy.java", path);
            } else if (seen.add(path)) {
                files.add(new StartingFile(path, tables.text(row, "file").orElse("")));
            }
        }
        return files;
    }

    private PromptContent.@Nullable Origin origin(TableRow row) {
        String repository = row.textOrNull("repository");
        String commit = row.textOrNull("commit");
        if ((repository == null) != (commit == null)) {
            tables.faults().add(row, "commit", "a commit if and only if there is a repository", commit);
        }
        return repository == null || commit == null ? null : new PromptContent.Origin(repository, commit);
    }

    private @Nullable KeyPoint keyPoint(TableRow row) {
        Integer from = row.integerOrNull("from_line");
        Integer to = row.integerOrNull("to_line");
        String file = row.textOrNull("file");
        if ((from == null) != (to == null) || (from != null && to != null && (from > to || file == null))) {
            tables.faults().add(row, "to_line", "both lines in order and a file, or none", row.textOrNull("to_line"));
            return null;
        }
        double weight = row.textOrNull("weight") == null ? 1 : row.number("weight");
        if (weight <= 0) {
            tables.faults().add(row, "weight", "a number above 0", row.text("weight"));
            return null;
        }
        KeyPoint.Stance stance =
                row.text("stance").equals("must-not") ? KeyPoint.Stance.MUST_NOT : KeyPoint.Stance.MUST_CONTAIN;
        return new KeyPoint(stance, row.text("text"), weight, file, from, to);
    }

    private List<String> followUps(String prompt) {
        List<TableRow> rows = tables.rows("follow-ups", "prompt", prompt).stream()
                .sorted(java.util.Comparator.comparingInt(r -> r.integer("place")))
                .toList();
        for (int i = 0; i < rows.size(); i++) {
            if (rows.get(i).integer("place") != i + 1) {
                tables.faults()
                        .add(
                                rows.get(i),
                                "place",
                                "each of 1 to " + rows.size() + " once",
                                rows.get(i).text("place"));
                break;
            }
        }
        return rows.stream().map(r -> r.text("text")).toList();
    }

    private PromptView.@Nullable FaultView fault(TableRow row) {
        String reason = row.textOrNull("fault");
        if (reason == null) {
            return null;
        }
        java.time.Instant at = row.instantOrNull("fault_found_at");
        if (at == null || row.textOrNull("fault_found_by") == null) {
            tables.faults().add(row, "fault_found_at", "when and by whom the fault was found", null);
            return null;
        }
        return new PromptView.FaultView(at, row.text("fault_found_by"), reason);
    }
}
