package org.mossbank.server.study;

import org.mossbank.server.ids.StudyId;

/** Something that figures are computed from has changed, other than grades: figures made before are stale. */
public record FiguresChanged(StudyId studyId) {}
