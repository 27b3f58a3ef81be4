package org.mossbank.server.archive;

import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.FollowUp;
import org.mossbank.server.source.SourceContent;

/** Writes follow-ups, sources and runs into their tables. */
final class CollectionRows {
    private final Map<String, List<List<@Nullable Object>>> tables;

    CollectionRows(Map<String, List<List<@Nullable Object>>> tables) {
        this.tables = tables;
    }

    private void add(String table, @Nullable Object... cells) {
        tables.computeIfAbsent(table, t -> new ArrayList<>()).add(Arrays.asList(cells));
    }

    void turns(Answers.NewAnswer answer) {
        int place = 0;
        for (FollowUp turn : answer.followUps()) {
            place++;
            add("turns", answer.key(), place, turn.asked(), turn.reply());
        }
    }

    void source(String candidate, SourceContent s) {
        add(
                "sources",
                candidate,
                s.url(),
                ArchiveTables.word(s.method()),
                s.body(),
                s.turnAsked(),
                s.turnReplied(),
                ArchiveTables.word(s.shape()),
                s.textPointer(),
                s.inputTokensPointer(),
                s.outputTokensPointer(),
                s.finishPointer(),
                ArchiveTables.list(s.completeWords()),
                ArchiveTables.list(s.refusedWords()),
                s.endMark(),
                s.mostOutputTokens(),
                s.timeLimitMs(),
                s.mostTries(),
                s.mostAtOnce());
        int place = 0;
        for (SourceContent.Header header : s.headers()) {
            place++;
            add("source-headers", candidate, place, header.name(), header.value());
        }
    }

    void run(StudyArchive.ArchiveRun run) {
        var head = run.head();
        add(
                "runs",
                head.key(),
                head.startedBy(),
                head.startedAt(),
                head.attempts(),
                head.followUps(),
                head.budgetCost(),
                head.budgetTokens(),
                head.currency(),
                head.finished() ? "finished" : "paused",
                head.reason());
        int place = 0;
        for (StudyArchive.ArchiveCell cell : run.cells()) {
            place++;
            add(
                    "run-cells",
                    head.key(),
                    place,
                    cell.group(),
                    cell.prompt(),
                    cell.candidate(),
                    cell.attempt(),
                    cell.state(),
                    cell.ownFollowUp(),
                    cell.turn(),
                    cell.tries(),
                    cell.spentCost(),
                    cell.spentTokens(),
                    cell.notes(),
                    cell.lateReply(),
                    cell.answer());
        }
    }
}
