package org.mossbank.server.prompt;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.account.Accounts;
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

/** Prompts and their kinds as rows of the open format, with the texts that stand in files of their own. */
public final class PromptRows {
    /** Names in one cell, with what stands between and before them. */
    private static final int LONGEST_AREAS = PromptContent.MOST_AREAS * (2 * PromptContent.LONGEST_AREA + 2);

    @TableForm(name = "kinds", meaning = "Kinds of prompts, in the order in which they are shown.", key = "kind")
    record KindRow(
            @Column(value = "Key of the kind, for example explanation", key = true)
            String kind,

            @Column("Name as shown") @As(KindService.AddKind.class) @NotNull
            String name) {}

    @TableForm(
            name = "prompts",
            meaning = "What every candidate is asked, in the order in which it is listed for the lead.",
            key = "prompt")
    record PromptRow(
            @Column(value = "Key of the prompt", key = true) String prompt,

            @Column(value = "Its kind", in = "kinds.kind") @NotNull
            String kind,

            @Column("Short title") @As(PromptContent.class) @NotNull
            String title,

            @Column("Programming language and version; may be empty") @As(PromptContent.class)
            String language,

            @Column("Path in the archive of the request, Markdown in UTF-8") @NotNull
            String file,

            @Column("What it touches, such as back end; several with ; between them") @Size(max = LONGEST_AREAS)
            List<String> areas,

            @Column("How much of the code the task is about: one place, one file or a few places, several files")
            PromptContent.@Nullable TaskSize size,

            @Column(
                    value = "Key of the rater who wrote it, who does not grade answers to it; empty if no rater did",
                    in = "raters.rater")
            @Nullable
            String author,

            @Column(value = "Key of the prompt that this is another wording of", in = "prompts.prompt") @Nullable
            String variantOf,

            @Column("How it is worded; must be there for a variant") @Nullable
            Wording wording,

            @Column("Path in the archive of a reference answer for the lead, Markdown in UTF-8") @Nullable
            String referenceFile,

            @Column("Git repository that the starting code came from; with a commit or not at all")
            @As(PromptContent.Origin.class)
            @Nullable
            String repository,

            @Column("Its commit") @As(PromptContent.Origin.class) @Nullable
            String commit,

            @Column(
                    value = "The calibration that raters learn the ruler in by it; empty where it counts",
                    in = "calibrations.calibration")
            @Nullable
            Integer calibration,

            @Column("Why it turned out faulty and counts nowhere; empty if it is sound")
            @As(value = PromptFaults.FaultReason.class, property = "reason")
            @Nullable
            String fault,

            @Column("Who found that") @Size(max = Accounts.LONGEST_NAME) @Nullable
            String faultFoundBy,

            @Column("When, ISO 8601 with zone") @Nullable Instant faultFoundAt) {}

    /** Kinds of prompts; a study has at least one. */
    public static final Table<KindRow> KINDS = Table.of(KindRow.class);

    public static final Table<PromptRow> PROMPTS = Table.of(PromptRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = Stream.of(List.<Table<?>>of(KINDS, PROMPTS), PromptPartRows.TABLES)
            .flatMap(List::stream)
            .toList();

    private final Tables tables;
    private final boolean preparing;
    private final PromptPartRows parts;

    private PromptRows(Tables tables, boolean preparing) {
        this.tables = tables;
        this.preparing = preparing;
        this.parts = new PromptPartRows(tables);
    }

    /** @param author key of the rater who wrote it */
    public record KeyedPrompt(
            String key,
            String kind,
            PromptContent content,
            @Nullable String author,
            @Nullable String variantOf,
            @Nullable Wording wording,
            @Nullable Integer calibration,
            PromptView.@Nullable FaultView fault) {
        public static KeyedPrompt of(PromptView prompt, Keys keys) {
            return new KeyedPrompt(
                    prompt.key(),
                    prompt.kind().key(),
                    prompt.content(),
                    keys.orNone(prompt.authorId()),
                    keys.orNone(prompt.variantOf()),
                    prompt.wording(),
                    prompt.calibration(),
                    prompt.fault());
        }

        /** The same, by another author. */
        public KeyedPrompt writtenBy(@Nullable String other) {
            return new KeyedPrompt(key, kind, content, other, variantOf, wording, calibration, fault);
        }

        /** As it is kept. */
        public Prompts.NewPrompt kept(NewIds ids) {
            return new Prompts.NewPrompt(
                    key, kind, content, ids.person(author), variantOf, wording, calibration, fault);
        }
    }

    public static List<Prompts.NewKind> readKinds(Tables tables) {
        return tables.lines(KINDS).stream()
                .map(l -> new Prompts.NewKind(l.row().kind(), l.row().name()))
                .toList();
    }

    /** @param preparing whether a request may still be empty */
    public static List<KeyedPrompt> read(Tables tables, boolean preparing) {
        PromptRows rows = new PromptRows(tables, preparing);
        Map<String, PromptRow> byKey = new HashMap<>();
        tables.lines(PROMPTS).forEach(l -> byKey.put(l.row().prompt(), l.row()));
        List<KeyedPrompt> prompts = new ArrayList<>();
        for (Line<PromptRow> line : tables.lines(PROMPTS)) {
            rows.checkVariant(line, byKey);
            prompts.add(rows.prompt(line.row(), line.at()));
        }
        return prompts;
    }

    private void checkVariant(Line<PromptRow> line, Map<String, PromptRow> byKey) {
        PromptRow row = line.row();
        String of = row.variantOf();
        if (of == null) {
            return;
        }
        PromptRow base = byKey.get(of);
        if (of.equals(row.prompt()) || (base != null && base.variantOf() != null)) {
            tables.faults().add(line.at(), "variant_of", "a prompt that is no variant itself", of);
        }
        if (row.wording() == null) {
            tables.faults().add(line.at(), "wording", "vague, exact or other, as it is a variant", null);
        }
    }

    private KeyedPrompt prompt(PromptRow row, TableRow at) {
        return new KeyedPrompt(
                row.prompt(),
                row.kind(),
                content(row, at),
                row.author(),
                row.variantOf(),
                row.wording(),
                row.calibration(),
                fault(row, at));
    }

    private PromptContent content(PromptRow row, TableRow at) {
        String request = tables.text(at, "file").orElse("");
        if (request.isBlank() && !preparing) {
            tables.faults().add(at, "file", "a file with text", row.file());
        }
        return new PromptContent(
                row.title(),
                row.language(),
                request,
                row.areas(),
                row.size(),
                parts.constraints(row.prompt()),
                parts.startingFiles(row.prompt()),
                origin(row, at),
                parts.keyPoints(row.prompt()),
                tables.text(at, "reference_file").orElse(""),
                parts.followUps(row.prompt()));
    }

    private PromptContent.@Nullable Origin origin(PromptRow row, TableRow at) {
        String repository = row.repository();
        String commit = row.commit();
        if ((repository == null) != (commit == null)) {
            tables.faults().add(at, "commit", "a commit if and only if there is a repository", commit);
        }
        return repository == null || commit == null ? null : new PromptContent.Origin(repository, commit);
    }

    private PromptView.@Nullable FaultView fault(PromptRow row, TableRow at) {
        if (row.fault() == null) {
            if (row.faultFoundAt() != null || row.faultFoundBy() != null) {
                tables.faults().add(at, "fault", "what was wrong, as somebody found a fault", null);
            }
            return null;
        }
        if (row.faultFoundAt() == null || row.faultFoundBy() == null) {
            tables.faults().add(at, "fault_found_at", "when and by whom the fault was found", null);
            return null;
        }
        return new PromptView.FaultView(row.faultFoundAt(), row.faultFoundBy(), row.fault());
    }

    public static void writeKind(Prompts.NewKind kind, WrittenFiles out) {
        out.add(KINDS, new KindRow(kind.key(), kind.name()));
    }

    public static void write(KeyedPrompt prompt, WrittenFiles out) {
        PromptContent content = prompt.content();
        PromptContent.Origin origin = content.origin();
        PromptView.FaultView fault = prompt.fault();
        out.add(
                PROMPTS,
                new PromptRow(
                        prompt.key(),
                        prompt.kind(),
                        content.title(),
                        content.language(),
                        promptFile(prompt.key()),
                        content.areas(),
                        content.size(),
                        prompt.author(),
                        prompt.variantOf(),
                        prompt.wording(),
                        content.referenceAnswer().isEmpty() ? null : referenceFile(prompt.key()),
                        origin == null ? null : origin.repository(),
                        origin == null ? null : origin.commit(),
                        prompt.calibration(),
                        fault == null ? null : fault.reason(),
                        fault == null ? null : fault.by(),
                        fault == null ? null : fault.at()));
        PromptPartRows.write(prompt.key(), content, out);
        writeFiles(prompt.key(), content, out);
    }

    private static void writeFiles(String key, PromptContent content, WrittenFiles out) {
        out.put(promptFile(key), content.request());
        if (!content.referenceAnswer().isEmpty()) {
            out.put(referenceFile(key), content.referenceAnswer());
        }
    }

    private static String promptFile(String key) {
        return "prompts/" + key + ".md";
    }

    private static String referenceFile(String key) {
        return "references/" + key + ".md";
    }
}
