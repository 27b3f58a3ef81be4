package org.mossbank.server.evidence.rows;

import java.time.Instant;
import java.util.Comparator;
import java.util.List;
import java.util.Objects;
import java.util.SortedMap;
import java.util.function.Predicate;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.evidence.EvidenceRecords;
import org.mossbank.server.files.Keys;
import org.mossbank.server.files.NewIds;
import org.mossbank.server.grading.SheetsAtDesk;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.page.Picture;
import org.mossbank.server.trial.CheckContent;
import org.mossbank.server.trial.InputEnd;
import org.mossbank.server.trial.TrialRecords;
import org.mossbank.server.trial.TrialResult;

/**
 * Checks, and what was tried by them, with everything and everybody by key.
 *
 * @param checks  by prompt
 * @param trials  by answer, turn and repetition
 * @param repairs by answer, oldest first
 * @param inputs  oldest first
 * @param seen    by rater and answer
 */
public record KeyedEvidence(
        List<KeyedCheck> checks,
        List<KeyedTrial> trials,
        List<KeyedRepair> repairs,
        List<KeyedInput> inputs,
        List<KeyedSeen> seen) {
    public static final KeyedEvidence NONE = new KeyedEvidence(List.of(), List.of(), List.of(), List.of(), List.of());

    public record KeyedCheck(String prompt, CheckContent content, Instant changedAt, String changedBy) {}

    public record KeyedTrial(
            String answer, int turn, int repetition, TrialResult result, List<Picture> pictures, Instant endedAt) {}

    /** @param author key of the rater; absent for a lead */
    public record KeyedRepair(
            String answer,
            @Nullable String author,
            SortedMap<String, String> files,
            List<FileChange> changes,
            int lines,
            TrialResult result,
            List<Picture> pictures,
            Instant madeAt) {}

    public record KeyedInput(String rater, String prompt, boolean repeat, InputEnd.Given given, Instant at) {}

    public record KeyedSeen(
            String rater,
            String answer,
            boolean repeat,
            Instant at,
            @Nullable Integer level) {}

    public static KeyedEvidence of(EvidenceRecords.Records records, Keys keys) {
        return new KeyedEvidence(
                records.trials().checks().stream()
                        .map(c -> new KeyedCheck(keys.of(c.promptId()), c.content(), c.changedAt(), c.changedBy()))
                        .sorted(Comparator.comparing(KeyedCheck::prompt))
                        .toList(),
                records.trials().trials().stream()
                        .map(t -> new KeyedTrial(
                                keys.of(t.answerId()), t.turn(), t.repetition(), t.result(), t.pictures(), t.endedAt()))
                        .sorted(Comparator.comparing(KeyedTrial::answer)
                                .thenComparingInt(KeyedTrial::turn)
                                .thenComparingInt(KeyedTrial::repetition))
                        .toList(),
                records.trials().repairs().stream()
                        .map(r -> new KeyedRepair(
                                keys.of(r.answerId()),
                                keys.orNone(r.authorId()),
                                r.files(),
                                r.changes(),
                                r.lines(),
                                r.result(),
                                r.pictures(),
                                r.madeAt()))
                        .sorted(Comparator.comparing(KeyedRepair::answer).thenComparing(KeyedRepair::madeAt))
                        .toList(),
                records.inputs().stream()
                        .map(i -> new KeyedInput(
                                keys.of(i.place().raterId()),
                                keys.of(i.place().promptId()),
                                i.place().repeat(),
                                i.given(),
                                i.at()))
                        .sorted(Comparator.comparing(KeyedInput::at).thenComparing(KeyedInput::rater))
                        .toList(),
                records.seen().stream()
                        .map(s -> new KeyedSeen(
                                keys.of(s.raterId()), keys.of(s.answerId()), s.repeat(), s.at(), s.level()))
                        .sorted(Comparator.comparing(KeyedSeen::rater)
                                .thenComparing(KeyedSeen::answer)
                                .thenComparing(KeyedSeen::repeat))
                        .toList());
    }

    /** Checks of those prompts alone: nothing was tried by them yet. */
    public KeyedEvidence checksOf(Predicate<String> prompt) {
        return new KeyedEvidence(
                checks.stream().filter(c -> prompt.test(c.prompt)).toList(),
                List.of(),
                List.of(),
                List.of(),
                List.of());
    }

    /** @param lead who takes the place of a lead */
    public EvidenceRecords.Records kept(NewIds ids, AccountId lead) {
        return new EvidenceRecords.Records(
                new TrialRecords.Records(
                        checks.stream()
                                .map(c -> new TrialRecords.CheckRecord(
                                        Require.known(ids.prompts(), c.prompt), c.content, c.changedAt, c.changedBy))
                                .toList(),
                        trials.stream()
                                .map(t -> new TrialRecords.TrialRecord(
                                        Require.known(ids.answers(), t.answer),
                                        t.turn,
                                        t.repetition,
                                        t.result,
                                        t.pictures,
                                        t.endedAt))
                                .toList(),
                        repairs.stream()
                                .map(r -> new TrialRecords.RepairRecord(
                                        Require.known(ids.answers(), r.answer),
                                        Objects.requireNonNullElse(ids.person(r.author), lead),
                                        r.files,
                                        r.changes,
                                        r.lines,
                                        r.result,
                                        r.pictures,
                                        r.madeAt))
                                .toList()),
                inputs.stream()
                        .map(i -> new EvidenceRecords.InputRecord(
                                new SheetsAtDesk.Place(
                                        Require.known(ids.people(), i.rater),
                                        Require.known(ids.prompts(), i.prompt),
                                        i.repeat),
                                i.given,
                                i.at))
                        .toList(),
                seen.stream()
                        .map(s -> new EvidenceRecords.SeenRecord(
                                Require.known(ids.people(), s.rater),
                                Require.known(ids.answers(), s.answer),
                                s.repeat,
                                s.at,
                                s.level))
                        .toList());
    }
}
