package org.mossbank.server.study;

import java.util.UUID;

/** Something that figures are computed from has changed, other than grades: figures made before are stale. */
public record FiguresChanged(UUID studyId) {}
