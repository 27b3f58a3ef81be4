package org.mossbank.server.trial;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.SortedMap;
import java.util.TreeMap;
import org.mossbank.core.change.FileChange;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.core.trial.TrialSummary;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.RepairId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.page.Picture;
import org.mossbank.server.trial.Repairs.RepairMade;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** What a person changed of an answer's code, and what came of trying it so. It stays as it was made. */
@Entity
class Repair {
    private static final JsonMapper JSON = JsonMapper.shared();

    @Id
    private RepairId id;

    private StudyId studyId;
    private PromptId promptId;
    private AnswerId answerId;
    private AccountId authorId;

    /** Texts by path, as JSON. */
    private String files;

    /** {@link FileChange}s as JSON. */
    private String changes;

    private int lines;
    private String checkDigest;
    private String digest;

    @Enumerated(EnumType.STRING)
    private TrialOutcome outcome;

    private int passed;
    private int asked;

    /** {@link TrialResult} as JSON. */
    private String result;

    private Instant madeAt;

    @SuppressWarnings("NullAway.Init")
    protected Repair() {}

    /**
     * What is changed.
     *
     * @param promptId    of the answer
     * @param checkDigest of the check that it is tried by
     * @param digest      of the answer's text
     */
    record Subject(PromptId promptId, AnswerId answerId, String checkDigest, String digest) {}

    /**
     * How it is changed.
     *
     * @param files text by path, of the files that were changed
     * @param lines that were changed
     */
    record Change(SortedMap<String, String> files, List<FileChange> changes, int lines) {}

    static Repair of(StudyId study, Subject subject, Change change, RepairMade.By by, TrialResult result) {
        Repair repair = new Repair();
        repair.id = RepairId.random();
        repair.studyId = study;
        repair.promptId = subject.promptId;
        repair.answerId = subject.answerId;
        repair.checkDigest = subject.checkDigest;
        repair.digest = subject.digest;
        repair.authorId = by.authorId();
        repair.madeAt = by.at();
        repair.files = JSON.writeValueAsString(change.files);
        repair.changes = JSON.writeValueAsString(change.changes);
        repair.lines = change.lines;
        TrialSummary summary = result.summary();
        repair.outcome = summary.outcome();
        repair.passed = summary.passed();
        repair.asked = summary.asked();
        repair.result = JSON.writeValueAsString(result);
        return repair;
    }

    /** Whether it is of the text that the answer ends in. */
    boolean isOf(AnswerView answer) {
        return digest.equals(Trial.digest(answer, answer.followUps().size()));
    }

    SortedMap<String, String> files() {
        return new TreeMap<>(JSON.readValue(files, new TypeReference<Map<String, String>>() {}));
    }

    TrialResult result() {
        return JSON.readValue(result, TrialResult.class);
    }

    /** As an archive holds it. */
    TrialRecords.RepairRecord record(TrialResult came, List<Picture> pictures) {
        return new TrialRecords.RepairRecord(
                answerId, authorId, files(), made().changes(), lines, came, pictures, madeAt);
    }

    RepairMade made() {
        return new RepairMade(
                id,
                answerId,
                new RepairMade.By(authorId, madeAt),
                JSON.readValue(changes, new TypeReference<>() {}),
                lines,
                new TrialSummary(outcome, passed, asked));
    }
}
