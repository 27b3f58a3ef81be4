package org.mossbank.server.source;

import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Pattern;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** Sources as rows of the open format; secrets stand in them by name alone. */
public final class SourceRows {
    @TableForm(
            name = "sources",
            meaning = "How candidates are asked over HTTP. Secrets are in here by name only.",
            key = "candidate")
    record SourceRow(
            @Column(value = "The candidate", in = "candidates.candidate") @NotNull
            String candidate,

            @Column("Address of the service") @As(SourceContent.class) @NotNull
            String url,

            @Column("Method of the request") SourceContent.@NotNull Method method,

            @Column("What is sent: JSON with placeholders in double square brackets") @As(SourceContent.class) @NotNull
            String body,

            @Column("JSON of one of our turns, where the body holds turns") @As(SourceContent.class)
            String turnAsked,

            @Column("JSON of one of the candidate's turns") @As(SourceContent.class)
            String turnReplied,

            @Column("How it answers: one JSON document, or server-sent events")
            SourceContent.@NotNull Shape shape,

            @Column("JSON Pointer (RFC 6901) to the text") @Pattern(regexp = SourceContent.PLAIN_POINTER) @NotNull
            String textPointer,

            @Column("JSON Pointer to the count of tokens sent; empty if none comes")
            @Pattern(regexp = SourceContent.PLAIN_POINTER)
            String inputTokensPointer,

            @Column("JSON Pointer to the count of tokens received; empty if none comes")
            @Pattern(regexp = SourceContent.PLAIN_POINTER)
            String outputTokensPointer,

            @Column("JSON Pointer to the word that says how it ended; empty if none comes")
            @Pattern(regexp = SourceContent.PLAIN_POINTER)
            String finishPointer,

            @Column("JSON Pointer to what it says has answered, such as a version; empty if none comes")
            @Pattern(regexp = SourceContent.PLAIN_POINTER)
            String modelPointer,

            @Column("Words of a complete answer, with ; between them")
            List<String> completeWords,

            @Column("Words of a refusal, with ; between them")
            List<String> refusedWords,

            @Column("What the last event holds in place of JSON; empty if the stream just ends")
            @As(SourceContent.class)
            String endMark,

            @Column("What the service is told to write at most") @As(SourceContent.class)
            int mostOutputTokens,

            @Column("Milliseconds for one request") @As(SourceContent.class)
            long timeLimitMs,

            @Column("How often one request is tried when nothing came") @As(SourceContent.class)
            int mostTries,

            @Column("Requests at the same time") @As(SourceContent.class)
            int mostAtOnce) {}

    @TableForm(
            name = "source-headers",
            meaning = "Headers of the requests to sources.",
            key = {"candidate", "place"})
    record HeaderRow(
            @Column(value = "The candidate", in = "sources.candidate") @NotNull
            String candidate,

            @Column("Which header, from 1") @As(value = SourceContent.class, property = "headers", part = As.Part.PLACE)
            int place,

            @Column("Name of the header")
            @As(SourceContent.Header.class)
            @Pattern(regexp = SourceContent.HEADER_NAME)
            @NotNull
            String name,

            @Column("Its value, in which [[secret NAME]] stands for a secret")
            @As(SourceContent.Header.class)
            @Pattern(regexp = SourceContent.HEADER_VALUE)
            String value) {}

    private static final Table<SourceRow> SOURCES = Table.of(SourceRow.class);
    private static final Table<HeaderRow> HEADERS = Table.of(HeaderRow.class);

    /** In the order in which they are written. */
    public static final List<Table<?>> TABLES = List.of(SOURCES, HEADERS);

    private SourceRows() {}

    /** Sources by the candidate's key. */
    public static SortedMap<String, SourceContent> read(Tables tables) {
        Map<String, List<Line<HeaderRow>>> headers = tables.by(HEADERS, HeaderRow::candidate);
        SortedMap<String, SourceContent> sources = new TreeMap<>();
        for (Line<SourceRow> line : tables.lines(SOURCES)) {
            String candidate = line.row().candidate();
            SourceContent source = source(
                    line.row(),
                    tables.inPlaces(headers.get(candidate), HeaderRow::place).stream()
                            .map(h -> new SourceContent.Header(h.name(), h.value()))
                            .toList());
            Sources.fault(source)
                    .ifPresent(f -> tables.faults()
                            .add(
                                    line.at(),
                                    column(f.field()),
                                    f.rule(),
                                    line.at().textOrNull(column(f.field()))));
            sources.put(candidate, source);
        }
        return sources;
    }

    private static String column(String field) {
        return field.replaceAll("([A-Z])", "_$1").toLowerCase(Locale.ROOT);
    }

    private static SourceContent source(SourceRow row, List<SourceContent.Header> headers) {
        return new SourceContent(
                row.url(),
                row.method(),
                headers,
                row.body(),
                row.turnAsked(),
                row.turnReplied(),
                row.shape(),
                row.textPointer(),
                row.inputTokensPointer(),
                row.outputTokensPointer(),
                row.finishPointer(),
                row.modelPointer(),
                row.completeWords(),
                row.refusedWords(),
                row.endMark(),
                row.mostOutputTokens(),
                row.timeLimitMs(),
                row.mostTries(),
                row.mostAtOnce());
    }

    public static void write(String candidate, SourceContent source, WrittenFiles out) {
        out.add(
                SOURCES,
                new SourceRow(
                        candidate,
                        source.url(),
                        source.method(),
                        source.body(),
                        source.turnAsked(),
                        source.turnReplied(),
                        source.shape(),
                        source.textPointer(),
                        source.inputTokensPointer(),
                        source.outputTokensPointer(),
                        source.finishPointer(),
                        source.modelPointer(),
                        source.completeWords(),
                        source.refusedWords(),
                        source.endMark(),
                        source.mostOutputTokens(),
                        source.timeLimitMs(),
                        source.mostTries(),
                        source.mostAtOnce()));
        int place = 1;
        for (SourceContent.Header header : source.headers()) {
            out.add(HEADERS, new HeaderRow(candidate, place++, header.name(), header.value()));
        }
    }
}
