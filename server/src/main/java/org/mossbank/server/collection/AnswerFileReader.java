package org.mossbank.server.collection;

import com.networknt.schema.Schema;
import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.math.BigDecimal;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.MalformedDiff;
import org.mossbank.core.change.UnifiedDiff;
import org.mossbank.core.markdown.FencedBlock;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.files.Fault;
import org.mossbank.server.files.Faults;
import org.mossbank.server.files.JsonFile;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.TextFile;
import org.mossbank.server.files.Words;
import org.mossbank.server.files.ZipFiles;
import org.yaml.snakeyaml.LoaderOptions;
import org.yaml.snakeyaml.Yaml;
import org.yaml.snakeyaml.constructor.SafeConstructor;
import org.yaml.snakeyaml.error.MarkedYAMLException;
import org.yaml.snakeyaml.error.YAMLException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** Reads answers from JSON Lines, CSV, or a zip of Markdown files with YAML front matter. */
final class AnswerFileReader {
    private static final ZipFiles.Bounds BOUNDS = new ZipFiles.Bounds(Answers.MOST_TEXT, Answers.MOST);
    private static final int LONGEST_TEXT = FollowUp.LONGEST_REPLY;
    private static final int LONGEST_FRONT_MATTER = 20_000;
    private static final int MOST_COST_DECIMALS = 6;
    private static final Schema LINE = JsonFile.schema("answer-line");

    private final Faults faults;
    private final List<IncomingAnswer> answers = new ArrayList<>();

    private AnswerFileReader(Faults faults) {
        this.faults = faults;
    }

    /** The answers that could be read; what is wrong goes to the faults. The name's ending says which format it is. */
    static List<IncomingAnswer> read(String file, byte[] bytes, Faults faults) {
        AnswerFileReader reader = new AnswerFileReader(faults);
        String name = file.toLowerCase(Locale.ROOT);
        if (name.endsWith(".zip")) {
            reader.zip(file, bytes);
        } else if (name.endsWith(".csv")) {
            TextFile.read(file, bytes, faults).ifPresent(text -> reader.table(file, text));
        } else if (name.endsWith(".jsonl") || name.endsWith(".ndjson")) {
            TextFile.read(file, bytes, faults).ifPresent(text -> reader.lines(file, text));
        } else {
            faults.add(Fault.ofFile(file, "a file whose name ends in .jsonl, .ndjson, .csv or .zip"));
        }
        if (reader.answers.isEmpty() && faults.isEmpty()) {
            faults.add(Fault.ofFile(file, "at least one answer"));
        }
        if (reader.answers.size() > Answers.MOST) {
            faults.add(Fault.ofFile(file, "at most %,d answers".formatted(Answers.MOST)));
        }
        return reader.answers;
    }

    private void lines(String file, String text) {
        int number = 0;
        for (String line : text.split("\n", -1)) {
            number++;
            if (!line.isBlank()) {
                int at = number;
                json(file, at, line).ifPresent(json -> {
                    String own = json.path("text").asString("");
                    add(file, at, json, isDiff(json.path("form").asString("")) ? diff(file, at, 0, own) : own);
                });
            }
        }
    }

    /** One document on one line: every fault in it is a fault of that line. */
    private Optional<JsonNode> json(String file, int line, String text) {
        Faults own = new Faults();
        Optional<JsonNode> json = JsonFile.read(file, text, LINE, own);
        own.list().forEach(f -> faults.add(new Fault(file, line, f.field(), f.expected(), f.found())));
        return json;
    }

    private void table(String file, String text) {
        for (Line<AnswerTableRow> line : AnswerTableRow.TABLE.read(file, text, faults)) {
            AnswerTableRow row = line.row();
            int at = line.at().line();
            check(new IncomingAnswer(
                    file,
                    at,
                    row.prompt(),
                    row.candidate(),
                    row.attempt(),
                    row.outcome() == null ? Outcome.COMPLETE : row.outcome(),
                    row.isDiff() ? diff(file, at, 0, row.text()) : row.text(),
                    List.of(),
                    row.measures()));
        }
    }

    private void zip(String file, byte[] bytes) {
        Map<String, byte[]> files;
        try {
            files = ZipFiles.read(new ByteArrayInputStream(bytes), BOUNDS);
        } catch (ZipFiles.Unreadable e) {
            faults.add(Fault.ofFile(file, e.rule()));
            return;
        } catch (IOException e) {
            faults.add(Fault.ofFile(file, "must be a zip file that is whole"));
            return;
        }
        files.forEach((path, content) -> {
            String name = path.toLowerCase(Locale.ROOT);
            if (name.endsWith(".md") || name.endsWith(".diff") || name.endsWith(".patch")) {
                TextFile.read(path, content, faults).ifPresent(text -> withFrontMatter(path, text));
            } else {
                faults.add(Fault.ofFile(path, "a file whose name ends in .md, .diff or .patch"));
            }
        });
    }

    /** Front matter between two lines of ---, then the answer: Markdown, or a diff if the file's name says so. */
    private void withFrontMatter(String path, String text) {
        String all = text.replace("\r\n", "\n");
        int end = all.startsWith("---\n") ? all.indexOf("\n---\n", 3) : -1;
        if (end < 0 || end > LONGEST_FRONT_MATTER) {
            faults.add(new Fault(path, 1, null, "front matter: YAML between two lines of ---", null));
            return;
        }
        Object yaml;
        try {
            LoaderOptions options = new LoaderOptions();
            options.setAllowDuplicateKeys(false);
            options.setMaxAliasesForCollections(0);
            yaml = new Yaml(new SafeConstructor(options)).load(all.substring(4, end + 1));
        } catch (MarkedYAMLException e) {
            int line = e.getProblemMark() == null ? 1 : 2 + e.getProblemMark().getLine();
            faults.add(new Fault(path, line, null, "YAML", e.getProblem()));
            return;
        } catch (YAMLException e) {
            faults.add(new Fault(path, 1, null, "YAML", null));
            return;
        }
        if (!(yaml instanceof Map<?, ?> map)) {
            faults.add(new Fault(path, 2, null, "names with values, such as prompt: lost-berth", null));
            return;
        }
        String json = JsonMapper.shared().writeValueAsString(map);
        json(path, 1, json).ifPresent(node -> {
            if (node.has("text")) {
                faults.add(new Fault(path, 1, "/text", "no property of this name: the text stands below", null));
            } else {
                String below = all.substring(end + "\n---\n".length());
                int above =
                        (int) all.substring(0, end + "\n---\n".length()).lines().count();
                boolean diff = !path.toLowerCase(Locale.ROOT).endsWith(".md")
                        || isDiff(node.path("form").asString(""));
                add(path, 1, node, diff ? diff(path, 1, above, below) : below.strip() + "\n");
            }
        });
    }

    private static boolean isDiff(@Nullable String form) {
        return "diff".equals(form);
    }

    /**
     * A unified diff as an answer: a block of that language, so that it is read as one.
     *
     * @param line  where the answer begins
     * @param above lines of the file above the diff, where it stands in a file by itself
     */
    private String diff(String file, int line, int above, String text) {
        try {
            UnifiedDiff.parse(text);
        } catch (MalformedDiff e) {
            faults.add(
                    above > 0
                            ? new Fault(file, above + e.line(), null, e.expected(), null)
                            : new Fault(
                                    file, line, "text", e.expected() + " (line " + e.line() + " of the diff)", null));
        }
        return FencedBlock.around(text, "diff");
    }

    private void add(String file, int line, JsonNode json, String text) {
        check(new IncomingAnswer(
                file,
                line,
                json.path("prompt").asString(),
                json.path("candidate").asString(),
                json.has("attempt") ? json.path("attempt").asInt() : null,
                Objects.requireNonNullElse(
                        Words.constant(
                                Outcome.class,
                                json.has("outcome") ? json.path("outcome").asString() : null),
                        Outcome.COMPLETE),
                text,
                followUps(json),
                new Measures(
                        whole(json, "first_output_ms"),
                        whole(json, "total_ms"),
                        whole(json, "input_tokens"),
                        whole(json, "output_tokens"),
                        cost(file, line, json),
                        json.has("currency") ? json.path("currency").asString() : null,
                        json.path("estimated").asBoolean(false),
                        json.has("tries") ? json.path("tries").asInt() : null,
                        json.has("model") ? json.path("model").asString() : null)));
    }

    private static List<FollowUp> followUps(JsonNode json) {
        return json.path("follow_ups")
                .valueStream()
                .map(f ->
                        new FollowUp(f.path("asked").asString(), f.path("reply").asString()))
                .toList();
    }

    private @Nullable BigDecimal cost(String file, int line, JsonNode json) {
        if (!json.has("cost")) {
            return null;
        }
        BigDecimal cost = Words.plain(json.path("cost").decimalValue());
        if (cost.scale() > MOST_COST_DECIMALS) {
            faults.add(
                    new Fault(file, line, "cost", "at most " + MOST_COST_DECIMALS + " decimals", cost.toPlainString()));
        }
        return cost;
    }

    private static @Nullable Long whole(JsonNode json, String field) {
        return json.has(field) ? Long.valueOf(json.path(field).asLong()) : null;
    }

    /** Takes an answer as it is, and says what is wrong with it. */
    private void check(IncomingAnswer answer) {
        if (answer.outcome() == Outcome.COMPLETE && answer.text().isBlank()) {
            fault(answer, "text", "text, as the answer is complete", null);
        }
        if (answer.text().length() > LONGEST_TEXT) {
            fault(answer, "text", "at most " + LONGEST_TEXT + " characters", null);
        }
        checkFollowUps(answer);
        checkCost(answer);
        answers.add(answer);
    }

    private void fault(IncomingAnswer answer, String field, String expected, @Nullable String found) {
        faults.add(new Fault(answer.file(), answer.line(), field, expected, found));
    }

    private void checkFollowUps(IncomingAnswer answer) {
        for (FollowUp followUp : answer.followUps()) {
            if (followUp.asked().isBlank()) {
                fault(answer, "follow_ups", "what the candidate was told", null);
            }
            if (followUp.reply().length() > LONGEST_TEXT) {
                fault(answer, "follow_ups", "at most " + LONGEST_TEXT + " characters", null);
            }
        }
        if (Stream.concat(
                        Stream.of(answer.text()),
                        answer.followUps().stream().flatMap(f -> Stream.of(f.asked(), f.reply())))
                .anyMatch(t -> t.indexOf('\0') >= 0)) {
            fault(answer, "text", "text without the character U+0000", null);
        }
    }

    private void checkCost(IncomingAnswer answer) {
        BigDecimal cost = answer.measures().cost();
        String currency = answer.measures().currency();
        if ((cost == null) != (currency == null)) {
            fault(answer, "currency", "a currency if and only if there is a cost", currency);
        }
    }
}
