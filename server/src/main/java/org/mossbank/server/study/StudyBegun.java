package org.mossbank.server.study;

import java.util.UUID;

/** A study was begun inside Mossbank: modules lay out what it starts with, in the order of the job. */
public record StudyBegun(UUID studyId) {}
