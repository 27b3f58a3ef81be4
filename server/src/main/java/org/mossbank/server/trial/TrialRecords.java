package org.mossbank.server.trial;

import jakarta.persistence.EntityManager;
import java.time.Instant;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.SortedMap;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.estimate.Require;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.answer.Answers;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.page.Picture;
import org.mossbank.server.shared.SystemOnly;
import org.mossbank.server.trial.Repairs.RepairMade;
import org.mossbank.server.trial.picture.PagePictures;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Checks, and what was tried by them, as an archive holds them. What was tried by an earlier check says nothing any more. */
@Service
public class TrialRecords {
    private final PromptCheckRepository checks;
    private final TrialRepository trials;
    private final RepairRepository repairs;
    private final Answers answers;
    private final PagePictures pictures;
    private final EntityManager entities;

    TrialRecords(
            PromptCheckRepository checks,
            TrialRepository trials,
            RepairRepository repairs,
            Answers answers,
            PagePictures pictures,
            EntityManager entities) {
        this.pictures = pictures;
        this.checks = checks;
        this.trials = trials;
        this.repairs = repairs;
        this.answers = answers;
        this.entities = entities;
    }

    /** Of all pictures of a study together, in bytes. */
    public static final long MOST_PICTURES = PagePictures.MOST_BYTES;

    /** Everything of a study. */
    public record Records(List<CheckRecord> checks, List<TrialRecord> trials, List<RepairRecord> repairs) {}

    /** @param changedBy by name */
    public record CheckRecord(PromptId promptId, CheckContent content, Instant changedAt, String changedBy) {}

    /**
     * A trial that has ended.
     *
     * @param pictures those that its result tells of
     */
    public record TrialRecord(
            AnswerId answerId, int turn, int repetition, TrialResult result, List<Picture> pictures, Instant endedAt) {}

    /**
     * A repair.
     *
     * @param files   text by path, of the files that were changed
     * @param changes file by file
     * @param lines   changed; one that was replaced counts once
     * @param pictures those that its result tells of
     */
    public record RepairRecord(
            AnswerId answerId,
            AccountId authorId,
            SortedMap<String, String> files,
            List<FileChange> changes,
            int lines,
            TrialResult result,
            List<Picture> pictures,
            Instant madeAt) {}

    @SystemOnly
    @Transactional(readOnly = true)
    public Records ofStudy(StudyId study) {
        PagePictures.OfStudy taken = pictures.ofStudy(study);
        return new Records(
                checks.ofStudy(study).stream().map(PromptCheck::record).toList(),
                trials.current(study).stream().map(t -> record(t, taken)).toList(),
                repairs.current(study).stream().map(r -> record(r, taken)).toList());
    }

    private static TrialRecord record(Trial trial, PagePictures.OfStudy taken) {
        TrialResult result = Objects.requireNonNull(trial.result());
        return trial.record(result, taken.of(trial.id(), result.pictures()));
    }

    private static RepairRecord record(Repair repair, PagePictures.OfStudy taken) {
        TrialResult result = repair.result();
        return repair.record(result, taken.of(repair.made().id(), result.pictures()));
    }

    /** As an archive brings them: each of an answer that is there, to a prompt whose check is among them. */
    @SystemOnly
    @Transactional
    public void restore(StudyId study, Records records) {
        Map<PromptId, String> digests = new HashMap<>();
        for (CheckRecord record : records.checks) {
            PromptCheck check = PromptCheck.of(study, record.promptId);
            check.change(record.content, record.changedAt, record.changedBy);
            entities.persist(check);
            digests.put(record.promptId, check.digest());
        }
        Map<AnswerId, AnswerView> byId = new HashMap<>();
        if (!records.trials.isEmpty() || !records.repairs.isEmpty()) {
            answers.ofStudy(study).forEach(a -> byId.put(a.id(), a));
        }
        // Once all that they are of is written: inserts are put together by their table, in the order of the first of
        // each.
        List<Runnable> taken = new ArrayList<>();
        long place = trials.lastPlace();
        for (TrialRecord record : records.trials) {
            AnswerView answer = Require.known(byId, record.answerId);
            Trial trial = Trial.of(
                    study,
                    new Trial.Subject(
                            answer.promptId(),
                            answer.id(),
                            record.turn,
                            record.repetition,
                            Require.known(digests, answer.promptId())),
                    Trial.digest(answer, record.turn),
                    ++place);
            trial.end(record.result, record.endedAt);
            entities.persist(trial);
            taken.add(() -> pictures.keepOfTrial(study, trial.id(), record.pictures));
        }
        for (RepairRecord record : records.repairs) {
            AnswerView answer = Require.known(byId, record.answerId);
            Repair repair = Repair.of(
                    study,
                    new Repair.Subject(
                            answer.promptId(),
                            answer.id(),
                            Require.known(digests, answer.promptId()),
                            Trial.digest(answer, answer.followUps().size())),
                    new Repair.Change(record.files, record.changes, record.lines),
                    new RepairMade.By(record.authorId, record.madeAt),
                    record.result);
            entities.persist(repair);
            taken.add(() -> pictures.keepOfRepair(study, repair.made().id(), record.pictures));
        }
        entities.flush();
        taken.forEach(Runnable::run);
        entities.flush();
    }
}
