package org.mossbank.server.trial;

import jakarta.persistence.Entity;
import jakarta.persistence.Id;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;
import org.mossbank.server.shared.Sha256;
import tools.jackson.databind.json.JsonMapper;

/** The check of a prompt. */
@Entity
class PromptCheck {
    @Id
    private PromptId promptId;

    private StudyId studyId;

    /** {@link CheckContent} as JSON. */
    private String content;

    /** Of the content: a trial belongs to one, and to the same again where a change is taken back. */
    private String digest;

    /** When it was tried last on the starting code, and on what. */
    private @Nullable Boolean startPassed;

    private @Nullable String startDigest;
    private @Nullable Boolean referencePassed;
    private @Nullable String referenceDigest;
    private int revision;
    private Instant changedAt;
    private String changedBy;

    @SuppressWarnings("NullAway.Init")
    protected PromptCheck() {}

    static PromptCheck of(StudyId study, PromptId prompt) {
        PromptCheck check = new PromptCheck();
        check.studyId = study;
        check.promptId = prompt;
        return check;
    }

    /** @return whether it is another now */
    boolean change(CheckContent newContent, Instant at, String by) {
        String json = JsonMapper.shared().writeValueAsString(newContent);
        if (revision > 0 && json.equals(content)) {
            return false;
        }
        content = json;
        digest = Sha256.hex(json.getBytes(StandardCharsets.UTF_8));
        revision++;
        changedAt = at;
        changedBy = by;
        return true;
    }

    /** Whether it asks the same as a check that stands on somebody's screen. */
    boolean isAs(CheckContent other) {
        return content().equals(other);
    }

    /** @param text of the starting code as a whole */
    void triedOnStart(boolean passed, String text) {
        startPassed = passed;
        startDigest = digestWith(text);
    }

    void triedOnReference(boolean passed, String text) {
        referencePassed = passed;
        referenceDigest = digestWith(text);
    }

    /** Whether the starting code, as it is, passed already. */
    boolean passesBefore(String text) {
        return Boolean.TRUE.equals(startPassed) && digestWith(text).equals(startDigest);
    }

    /** Whether the reference answer, as it is, did not pass. */
    boolean refusesReference(String text) {
        return Boolean.FALSE.equals(referencePassed) && digestWith(text).equals(referenceDigest);
    }

    private String digestWith(String text) {
        return Sha256.hex((digest + "\n" + text).getBytes(StandardCharsets.UTF_8));
    }

    PromptId promptId() {
        return promptId;
    }

    String digest() {
        return digest;
    }

    int revision() {
        return revision;
    }

    CheckContent content() {
        return JsonMapper.shared().readValue(content, CheckContent.class);
    }

    /** As an archive holds it. */
    TrialRecords.CheckRecord record() {
        return new TrialRecords.CheckRecord(promptId, content(), changedAt, changedBy);
    }

    CheckService.CheckOfPrompt view() {
        return new CheckService.CheckOfPrompt(promptId, content(), revision, changedAt, changedBy);
    }
}
