package org.mossbank.server.archive;

import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.Comparator;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.TreeMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.candidate.CandidateContent;
import org.mossbank.server.files.TableText;
import org.mossbank.server.grading.Grading;
import org.mossbank.server.grading.Mark;
import org.mossbank.server.grading.RemarkContent;
import org.mossbank.server.prompt.PromptContent;
import org.mossbank.server.prompt.PromptView;
import tools.jackson.databind.SerializationFeature;
import tools.jackson.databind.json.JsonMapper;

/** Turns a study into the files of an archive; the same study gives the same bytes. */
final class ArchiveWriter {
    private static final JsonMapper MAPPER =
            JsonMapper.builder().enable(SerializationFeature.INDENT_OUTPUT).build();

    private final StudyArchive study;
    private final Map<String, byte[]> files = new TreeMap<>();

    private ArchiveWriter(StudyArchive study) {
        this.study = study;
    }

    static ArchiveFiles write(StudyArchive study) {
        ArchiveWriter writer = new ArchiveWriter(study);
        writer.writeAll();
        return ArchiveFiles.of(writer.files);
    }

    private void writeAll() {
        put(ArchiveFiles.PACKAGE, MAPPER.writeValueAsString(PackageFile.of(study)) + "\n");
        put("study.json", MAPPER.writeValueAsString(StudyFile.of(study)) + "\n");
        tables().forEach((name, rows) ->
                put(name + ".csv", TableText.of(Schemas.table(name).columnNames(), rows)));
        if (!study.history().isEmpty()) {
            put(Schemas.RUBRIC_HISTORY + ".json", MAPPER.writeValueAsString(RubricHistoryFile.of(study)) + "\n");
        }
        study.prompts().forEach(this::putFiles);
        study.answers().stream().filter(a -> !a.text().isEmpty()).forEach(a -> put(answerFile(a.key()), a.text()));
    }

    private void putFiles(StudyArchive.ArchivePrompt prompt) {
        PromptContent content = prompt.content();
        put(promptFile(prompt.key()), content.request());
        if (!content.referenceAnswer().isEmpty()) {
            put(referenceFile(prompt.key()), content.referenceAnswer());
        }
        content.startingFiles().forEach(f -> put(codeFile(prompt.key(), f.path()), f.text()));
    }

    private void put(String path, String text) {
        files.put(path, text.getBytes(StandardCharsets.UTF_8));
    }

    private static String promptFile(String key) {
        return "prompts/" + key + ".md";
    }

    private static String referenceFile(String key) {
        return "references/" + key + ".md";
    }

    private static String codeFile(String key, String path) {
        return "code/" + key + "/" + path;
    }

    private static String answerFile(String key) {
        return "answers/" + key + ".md";
    }

    private Map<String, List<List<@Nullable Object>>> tables() {
        Map<String, List<List<@Nullable Object>>> tables = new LinkedHashMap<>();
        Schemas.TABLES.forEach(t -> tables.put(t, new ArrayList<>()));
        CollectionRows collection = new CollectionRows(tables);
        study.kinds().forEach(k -> add(tables, "kinds", k.key(), k.name()));
        study.prompts().forEach(p -> prompt(tables, p));
        study.candidates().forEach(c -> candidate(tables, c));
        study.answers().stream()
                .sorted(Comparator.comparing(Answers.NewAnswer::key))
                .forEach(a -> {
                    add(tables, "answers", answer(a));
                    collection.turns(a);
                });
        study.collection().sources().forEach(collection::source);
        study.collection().runs().forEach(collection::run);
        study.masking().words().forEach(w -> add(tables, "masking-words", w));
        study.masking()
                .masks()
                .forEach((answer, decided) -> decided.forEach(d -> add(
                        tables,
                        "masks",
                        answer,
                        d.from(),
                        d.to(),
                        d.found(),
                        ArchiveTables.word(d.sort()),
                        d.replacement(),
                        d.accepted() ? true : null,
                        d.at())));
        study.rubric().criteria().forEach(c -> criterion(tables, c));
        people(tables);
        study.sheets().forEach(s -> sheet(tables, s));
        return tables;
    }

    private static void add(Map<String, List<List<@Nullable Object>>> tables, String table, @Nullable Object... cells) {
        tables.get(table).add(Arrays.asList(cells));
    }

    private static void prompt(Map<String, List<List<@Nullable Object>>> tables, StudyArchive.ArchivePrompt p) {
        PromptContent content = p.content();
        PromptContent.Origin origin = content.origin();
        PromptView.FaultView fault = p.fault();
        add(
                tables,
                "prompts",
                p.key(),
                p.kind(),
                content.title(),
                content.language(),
                promptFile(p.key()),
                ArchiveTables.list(content.areas()),
                ArchiveTables.word(content.size()),
                p.author(),
                p.variantOf(),
                ArchiveTables.word(p.wording()),
                content.referenceAnswer().isEmpty() ? null : referenceFile(p.key()),
                origin == null ? null : origin.repository(),
                origin == null ? null : origin.commit(),
                fault == null ? null : fault.reason(),
                fault == null ? null : fault.by(),
                fault == null ? null : fault.at());
        content.keyPoints()
                .forEach(k -> add(
                        tables,
                        "key-points",
                        p.key(),
                        ArchiveTables.word(k.stance()),
                        k.text(),
                        k.weight() == 1 ? null : StudyFile.plain(k.weight()).toPlainString(),
                        k.file(),
                        k.fromLine(),
                        k.toLine()));
        content.constraints().forEach(c -> add(tables, "constraints", p.key(), c));
        content.startingFiles()
                .forEach(f -> add(tables, "starting-code", p.key(), f.path(), codeFile(p.key(), f.path())));
        int place = 1;
        for (String followUp : content.followUps()) {
            add(tables, "follow-ups", p.key(), place++, followUp);
        }
    }

    private static void candidate(Map<String, List<List<@Nullable Object>>> tables, StudyArchive.ArchiveCandidate c) {
        CandidateContent content = c.content();
        CandidateContent.Price price = content.price();
        add(
                tables,
                "candidates",
                c.key(),
                content.name(),
                content.version(),
                null,
                content.note(),
                content.contextWindow(),
                price.inputPerMillion() == null ? null : price.inputPerMillion().toPlainString(),
                price.outputPerMillion() == null
                        ? null
                        : price.outputPerMillion().toPlainString(),
                price.monthly() == null ? null : price.monthly().toPlainString(),
                price.currency(),
                price.caps(),
                content.asOf(),
                content.baseline() ? true : null,
                c.person());
        content.settings().forEach(s -> add(tables, "settings", c.key(), s.name(), s.value()));
        content.considerations()
                .forEach(k -> add(tables, "considerations", c.key(), ArchiveTables.word(k.sign()), k.text()));
    }

    private void people(Map<String, List<List<@Nullable Object>>> tables) {
        StudyArchive.People people = study.people();
        people.raters().forEach(r -> add(tables, "raters", r.signInName(), r.name(), r.lead() ? true : null));
        people.expectations()
                .forEach(e -> add(tables, "expectations", e.rater(), e.expects(), e.usesToday(), e.declaredAt()));
        people.readBacks()
                .forEach(r -> add(
                        tables,
                        "read-backs",
                        r.prompt(),
                        r.reader(),
                        r.askedAt(),
                        r.answer(),
                        r.answeredAt(),
                        ArchiveTables.word(r.verdict())));
    }

    private static @Nullable Object[] answer(Answers.NewAnswer a) {
        return new @Nullable Object[] {
            a.key(),
            a.prompt(),
            a.candidate(),
            a.attempt(),
            ArchiveTables.word(a.outcome()),
            a.text().isEmpty() ? null : answerFile(a.key()),
            a.measures().firstOutputMs(),
            a.measures().totalMs(),
            a.measures().inputTokens(),
            a.measures().outputTokens(),
            a.measures().cost() == null ? null : a.measures().cost().toPlainString(),
            a.measures().currency(),
            a.measures().estimated() ? true : null,
            a.measures().tries()
        };
    }

    private static void criterion(Map<String, List<List<@Nullable Object>>> tables, StudyArchive.ArchiveCriterion c) {
        add(
                tables,
                "criteria",
                c.key(),
                c.name(),
                c.question(),
                StudyFile.plain(c.weight()).toPlainString(),
                c.levels().size() - 1,
                c.floor() == null ? null : StudyFile.plain(c.floor()).toPlainString(),
                ArchiveTables.list(c.kinds()));
        Map<String, List<List<@Nullable Object>>> anchors = new TreeMap<>();
        for (int level = 0; level < c.levels().size(); level++) {
            StudyArchive.ArchiveLevel one = c.levels().get(level);
            if (!one.name().isEmpty()) {
                add(tables, "levels", c.key(), level, one.name());
            }
            for (Map.Entry<String, String> anchor : one.anchors().entrySet()) {
                anchors.computeIfAbsent(anchor.getKey(), k -> new ArrayList<>())
                        .add(Arrays.asList(c.key(), anchor.getKey(), level, anchor.getValue()));
            }
        }
        anchors.values().forEach(tables.get("anchors")::addAll);
        c.traits().forEach(t -> add(tables, "traits", c.key(), t));
    }

    private static void sheet(Map<String, List<List<@Nullable Object>>> tables, StudyArchive.ArchiveSheet s) {
        Boolean repeat = s.repeat() ? true : null;
        Grading.Withdrawn withdrawn = s.withdrawn();
        add(
                tables,
                "sheets",
                s.rater(),
                s.prompt(),
                s.place() + 1,
                s.sentAt(),
                repeat,
                withdrawn == null ? null : withdrawn.at(),
                withdrawn == null ? null : withdrawn.reason());
        int position = 1;
        for (StudyArchive.ArchiveSheetAnswer answer : s.answers()) {
            add(tables, "positions", s.rater(), answer.answer(), position++, repeat);
            for (Map.Entry<String, Mark> mark : new TreeMap<>(answer.marks()).entrySet()) {
                boolean none = mark.getValue().notApplicable();
                add(
                        tables,
                        "grades",
                        s.rater(),
                        answer.answer(),
                        mark.getKey(),
                        mark.getValue().level(),
                        none ? true : null,
                        repeat,
                        ArchiveTables.word(mark.getValue().confidence()));
            }
            if (!answer.reason().isEmpty()) {
                add(tables, "reasons", s.rater(), answer.answer(), answer.reason(), repeat);
            }
            said(tables, s.rater(), answer, repeat);
        }
    }

    private static void said(
            Map<String, List<List<@Nullable Object>>> tables,
            String rater,
            StudyArchive.ArchiveSheetAnswer answer,
            @Nullable Boolean repeat) {
        StudyArchive.ArchiveJudgement judgement = answer.judgement();
        if (judgement.isMade()) {
            add(
                    tables,
                    "judgements",
                    rater,
                    answer.answer(),
                    ArchiveTables.word(judgement.works()),
                    judgement.preference(),
                    judgement.guess(),
                    judgement.noIdea() ? true : null,
                    judgement.activeMs() == 0 ? null : judgement.activeMs(),
                    repeat);
        }
        answer.coverage()
                .forEach((point, verdict) -> add(
                        tables, "coverage", rater, answer.answer(), point + 1, ArchiveTables.word(verdict), repeat));
        int number = 1;
        for (RemarkContent remark : answer.remarks()) {
            RemarkContent.Lines lines = remark.lines();
            add(
                    tables,
                    "remarks",
                    rater,
                    answer.answer(),
                    number++,
                    ArchiveTables.word(remark.stance()),
                    remark.trait(),
                    remark.words(),
                    lines == null ? null : ArchiveTables.word(lines.part()),
                    lines == null ? null : lines.path(),
                    lines == null ? null : lines.from(),
                    lines == null ? null : lines.to(),
                    lines == null ? null : lines.quote(),
                    repeat);
        }
    }
}
