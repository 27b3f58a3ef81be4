package org.mossbank.server.prompt;

import java.util.List;
import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;

/** What later modules are told of prompts, within the transaction in which it happens. */
public final class PromptChanges {
    private PromptChanges() {}

    /** A prompt is about to be removed; what later modules hold of it goes first. */
    public record Removed(PromptId promptId) {}

    /** A prompt came out of the bank; what it brings along is laid down by whoever keeps such things. */
    public record Taken(StudyId studyId, PromptId promptId, String promptKey, List<Bank.Specimen> specimens) {}
}
