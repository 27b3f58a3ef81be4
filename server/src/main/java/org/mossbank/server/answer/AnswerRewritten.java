package org.mossbank.server.answer;

import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.StudyId;

/** The text of an answer is another one now. */
public record AnswerRewritten(StudyId studyId, AnswerId answerId) {}
