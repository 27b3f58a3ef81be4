package org.mossbank.server.archive;

import java.util.ArrayList;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.answer.Measures;
import org.mossbank.server.answer.Outcome;
import org.mossbank.server.files.TableRow;

/** Reads answers from their table and files. */
final class AnswerTables {
    private static final int MOST_COST_DECIMALS = 6;

    private final ArchiveTables tables;

    AnswerTables(ArchiveTables tables) {
        this.tables = tables;
    }

    List<Answers.NewAnswer> read() {
        List<Answers.NewAnswer> answers = new ArrayList<>();
        for (TableRow row : tables.rows("answers")) {
            Outcome outcome = Objects.requireNonNull(ArchiveTables.word(Outcome.class, row.text("outcome")));
            Optional<String> text = tables.text(row, "file");
            if (outcome == Outcome.COMPLETE && text.filter(t -> !t.isBlank()).isEmpty()) {
                tables.faults().add(row, "file", "a file with text, as the answer is complete", row.textOrNull("file"));
            }
            checkCost(row);
            answers.add(new Answers.NewAnswer(
                    row.text("answer"),
                    row.text("prompt"),
                    row.text("candidate"),
                    row.integer("attempt"),
                    outcome,
                    text.orElse(""),
                    followUps(row.text("answer")),
                    new Measures(
                            row.wholeOrNull("first_output_ms"),
                            row.wholeOrNull("total_ms"),
                            row.wholeOrNull("input_tokens"),
                            row.wholeOrNull("output_tokens"),
                            TableRow.plain(row.decimalOrNull("cost")),
                            row.textOrNull("currency"),
                            row.truth("estimated"),
                            row.integerOrNull("tries"))));
        }
        return answers;
    }

    private List<FollowUp> followUps(String answer) {
        return tables.inPlaces("turns", "answer", answer).stream()
                .map(r -> new FollowUp(r.text("asked"), r.text("reply")))
                .toList();
    }

    private void checkCost(TableRow row) {
        var cost = TableRow.plain(row.decimalOrNull("cost"));
        if ((cost == null) != (row.textOrNull("currency") == null)) {
            tables.faults()
                    .add(row, "currency", "a currency if and only if there is a cost", row.textOrNull("currency"));
        }
        if (cost != null && cost.scale() > MOST_COST_DECIMALS) {
            tables.faults().add(row, "cost", "at most six decimals", row.text("cost"));
        }
    }
}
