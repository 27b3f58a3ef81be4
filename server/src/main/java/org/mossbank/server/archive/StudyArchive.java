package org.mossbank.server.archive;

import java.time.Instant;
import java.util.List;
import java.util.SortedMap;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.answer.specimen.Specimens;
import org.mossbank.server.candidate.CandidateRows.KeyedCandidate;
import org.mossbank.server.grading.rows.KeyedSheet;
import org.mossbank.server.masking.MaskRows.KeyedMasks;
import org.mossbank.server.prompt.PromptRows.KeyedPrompt;
import org.mossbank.server.prompt.Prompts;
import org.mossbank.server.readback.ReadBackRows.KeyedReadBack;
import org.mossbank.server.rubric.KeyedVersion;
import org.mossbank.server.run.RunRows.KeyedRun;
import org.mossbank.server.source.SourceContent;
import org.mossbank.server.study.Brief;
import org.mossbank.server.study.KeptForecast;
import org.mossbank.server.study.PeopleRows.KeyedPeople;
import org.mossbank.server.study.Reopening;

/**
 * A study as an archive holds it: everything and everybody by key, nothing by database id.
 *
 * @param sources by candidate
 * @param rubric  the version that counts
 * @param history the other versions, oldest first
 * @param kept    what was done and seen on the way
 * @param sheets  by rater, then place, each with its answers in their order
 */
record StudyArchive(
        Head head,
        List<Prompts.NewKind> kinds,
        List<KeyedPrompt> prompts,
        List<KeyedCandidate> candidates,
        SortedMap<String, SourceContent> sources,
        List<Answers.NewAnswer> answers,
        List<Specimens.NewSpecimen> specimens,
        List<KeyedRun> runs,
        KeyedMasks masking,
        KeyedVersion rubric,
        List<KeyedVersion> history,
        KeyedPeople people,
        List<KeyedReadBack> readBacks,
        List<KeyedSheet> sheets,
        RecordParts.Kept kept) {
    StudyArchive withSheets(List<KeyedSheet> all) {
        return with(all, kept);
    }

    /** Without the memo: what it rests on is the rest. */
    StudyArchive withoutMemos() {
        return with(sheets, kept.withoutMemos());
    }

    private StudyArchive with(List<KeyedSheet> all, RecordParts.Kept other) {
        return new StudyArchive(
                head,
                kinds,
                prompts,
                candidates,
                sources,
                answers,
                specimens,
                runs,
                masking,
                rubric,
                history,
                people,
                readBacks,
                all,
                other);
    }

    /**
     * What stands in study.json.
     *
     * @param preparing     whether the round is not open
     * @param briefClosedAt absent while the brief is open
     * @param forecast      what it was thought to show when the brief was closed
     * @param mostFollowUps absent while the study has no rule
     */
    record Head(
            String title,
            Brief brief,
            boolean preparing,
            @Nullable Instant briefClosedAt,
            @Nullable KeptForecast forecast,
            List<Reopening> reopenings,
            long seed,
            @Nullable Integer mostFollowUps,
            KeyedVersion.Head rubric,
            RoundHead round) {}

    record RoundHead(
            @Nullable Instant openedAt,
            @Nullable Instant closedAt,
            @Nullable Instant namesOpenedAt,
            @Nullable Integer ratersAnAnswer,
            @Nullable Double repeatShare) {
        static final RoundHead NONE = new RoundHead(null, null, null, null, null);
    }
}
