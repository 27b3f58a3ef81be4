package org.mossbank.server.readback;

import jakarta.validation.constraints.NotNull;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.files.As;
import org.mossbank.server.files.Column;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.Line;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.files.Table;
import org.mossbank.server.files.TableForm;
import org.mossbank.server.files.Tables;
import org.mossbank.server.files.WrittenFiles;

/** What second developers thought a prompt asks, as rows of the open format. */
public final class ReadBackRows {
    @TableForm(
            name = "read-backs",
            meaning = "What second developers, asked before the round, thought a prompt asks.",
            key = {"prompt", "reader"})
    record ReadBackRow(
            @Column(value = "The prompt", in = "prompts.prompt") @NotNull
            String prompt,

            @Column(value = "Key of the rater who was asked", in = "raters.rater") @NotNull
            String reader,

            @Column("When, ISO 8601 with zone") @NotNull Instant askedAt,

            @Column("What they said is asked; empty while it is awaited") @As(ReadBackService.SayBack.class) @Nullable
            String answer,

            @Column("When, ISO 8601 with zone; with an answer or not at all") @Nullable
            Instant answeredAt,

            @Column("Whether they took it as it was meant") @Nullable
            ReadBackVerdict verdict) {}

    private static final Table<ReadBackRow> READ_BACKS = Table.of(ReadBackRow.class);

    public static final List<Table<?>> TABLES = List.of(READ_BACKS);

    private ReadBackRows() {}

    /** Prompt and reader by their keys. */
    public record KeyedReadBack(
            String prompt,
            String reader,
            Instant askedAt,
            @Nullable String answer,
            @Nullable Instant answeredAt,
            @Nullable ReadBackVerdict verdict) {
        public static KeyedReadBack of(ReadBacks.ReadBackRecord readBack, Keys keys) {
            return new KeyedReadBack(
                    keys.of(readBack.promptId()),
                    keys.of(readBack.readerId()),
                    readBack.askedAt(),
                    readBack.answer(),
                    readBack.answeredAt(),
                    readBack.verdict());
        }

        /** As it is kept. */
        public ReadBacks.ReadBackRecord kept(NewIds ids) {
            return new ReadBacks.ReadBackRecord(
                    Require.known(ids.prompts(), prompt),
                    Require.known(ids.people(), reader),
                    askedAt,
                    answer,
                    answeredAt,
                    verdict);
        }
    }

    public static List<KeyedReadBack> read(Tables tables) {
        return tables.lines(READ_BACKS).stream().map(l -> readBack(l, tables)).toList();
    }

    private static KeyedReadBack readBack(Line<ReadBackRow> line, Tables tables) {
        ReadBackRow row = line.row();
        if ((row.answer() == null) != (row.answeredAt() == null)) {
            tables.faults().add(line.at(), "answered_at", "a time if and only if there is an answer", null);
        }
        if (row.verdict() != null && row.answer() == null) {
            tables.faults()
                    .add(
                            line.at(),
                            "verdict",
                            "nothing, as there is no answer",
                            line.at().textOrNull("verdict"));
        }
        return new KeyedReadBack(
                row.prompt(), row.reader(), row.askedAt(), row.answer(), row.answeredAt(), row.verdict());
    }

    public static void write(KeyedReadBack readBack, WrittenFiles out) {
        out.add(
                READ_BACKS,
                new ReadBackRow(
                        readBack.prompt(),
                        readBack.reader(),
                        readBack.askedAt(),
                        readBack.answer(),
                        readBack.answeredAt(),
                        readBack.verdict()));
    }
}
