package org.mossbank.server.trial;

import jakarta.persistence.Entity;
import jakarta.persistence.EnumType;
import jakarta.persistence.Enumerated;
import jakarta.persistence.Id;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.List;
import java.util.Objects;
import java.util.UUID;
import org.jspecify.annotations.Nullable;
import org.mossbank.core.trial.CompilerMessage;
import org.mossbank.core.trial.TestChange;
import org.mossbank.core.trial.TrialOutcome;
import org.mossbank.server.answer.AnswerView;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.page.Picture;
import org.mossbank.server.shared.Sha256;
import tools.jackson.databind.json.JsonMapper;

/** One trial of one answer's code, from when it is wanted until it has ended. What has ended stays as it is. */
@Entity
class Trial {
    /** How far it is. */
    enum State {
        WAITING,
        RUNNING,
        ENDED,
        /** Somebody stopped it; it can go on. */
        STOPPED
    }

    @Id
    private UUID id;

    private StudyId studyId;
    private PromptId promptId;
    private AnswerId answerId;
    private int turn;
    private int repetition;
    private String checkDigest;

    /** Of the text that is tried: it holds of no other. */
    private String digest;

    private long place;

    @Enumerated(EnumType.STRING)
    private State state;

    private @Nullable UUID owner;
    private @Nullable Instant leaseUntil;
    private @Nullable Instant endedAt;

    @Enumerated(EnumType.STRING)
    private @Nullable TrialOutcome outcome;

    private int passed;
    private int asked;
    private long millis;
    private long memoryKb;
    private int warnings;
    private int deprecations;
    private int broken;
    private int mended;

    /** {@link TrialResult} as JSON. */
    private @Nullable String result;

    @SuppressWarnings("NullAway.Init")
    protected Trial() {}

    /**
     * What is tried.
     *
     * @param turn       0 for the first reply
     * @param repetition  from 1
     * @param checkDigest of the check that it is tried by
     */
    record Subject(PromptId promptId, AnswerId answerId, int turn, int repetition, String checkDigest) {}

    static Trial of(StudyId study, Subject subject, String digest, long place) {
        Trial trial = new Trial();
        trial.id = UUID.randomUUID();
        trial.studyId = study;
        trial.promptId = subject.promptId;
        trial.answerId = subject.answerId;
        trial.turn = subject.turn;
        trial.repetition = subject.repetition;
        trial.checkDigest = subject.checkDigest;
        trial.digest = digest;
        trial.place = place;
        trial.state = State.WAITING;
        return trial;
    }

    UUID id() {
        return id;
    }

    Subject subject() {
        return new Subject(promptId, answerId, turn, repetition, checkDigest);
    }

    boolean isOf(AnswerView answer) {
        return answer.followUps().size() >= turn && digest.equals(digest(answer, turn));
    }

    /** Of an answer's text up to a turn. */
    static String digest(AnswerView answer, int turn) {
        return Sha256.hex(answer.textUpTo(turn).getBytes(StandardCharsets.UTF_8));
    }

    StudyId studyId() {
        return studyId;
    }

    boolean isOwnedBy(UUID server) {
        return state == State.RUNNING && server.equals(owner);
    }

    void claim(UUID server, Instant until) {
        state = State.RUNNING;
        owner = server;
        leaseUntil = until;
    }

    void keep(Instant until) {
        leaseUntil = until;
    }

    /** What was under way begins anew: nothing of it is kept, and nothing counted. */
    void waitAgain() {
        leave(State.WAITING);
    }

    void stop() {
        leave(State.STOPPED);
    }

    private void leave(State next) {
        state = next;
        owner = null;
        leaseUntil = null;
    }

    void end(TrialResult ended, Instant at) {
        leave(State.ENDED);
        endedAt = at;
        outcome = ended.summary().outcome();
        passed = ended.summary().passed();
        asked = ended.summary().asked();
        millis = ended.millis();
        memoryKb = ended.memoryKb();
        warnings = (int) ended.messages().stream()
                .filter(m -> m.message().sort() == CompilerMessage.Sort.WARNING)
                .count();
        deprecations = (int)
                ended.messages().stream().filter(m -> m.message().deprecated()).count();
        broken = count(ended, TestChange.BROKEN);
        mended = count(ended, TestChange.MENDED);
        result = JsonMapper.shared().writeValueAsString(ended);
    }

    private static int count(TrialResult ended, TestChange change) {
        return (int) ended.items().stream().filter(i -> i.change() == change).count();
    }

    /** As an archive holds it, once it has ended. */
    TrialRecords.TrialRecord record(TrialResult ended, List<Picture> pictures) {
        return new TrialRecords.TrialRecord(
                answerId, turn, repetition, ended, pictures, Objects.requireNonNull(endedAt));
    }

    /** What came of it; absent until it has ended. */
    @Nullable
    TrialResult result() {
        return result == null ? null : JsonMapper.shared().readValue(result, TrialResult.class);
    }
}
