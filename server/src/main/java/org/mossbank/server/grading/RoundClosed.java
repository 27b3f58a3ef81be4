package org.mossbank.server.grading;

import org.mossbank.server.ids.StudyId;

/** Grading has ended: what raters gave may be looked at. */
public record RoundClosed(StudyId studyId) {}
