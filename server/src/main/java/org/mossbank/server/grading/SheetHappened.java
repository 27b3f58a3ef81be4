package org.mossbank.server.grading;

import org.mossbank.server.ids.PromptId;
import org.mossbank.server.ids.StudyId;

/** A sheet was sent in, taken back, withdrawn, given back or taken over; told within the same transaction. */
public record SheetHappened(StudyId studyId, PromptId promptId) {}
