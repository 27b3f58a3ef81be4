package org.mossbank.server.study;

import org.mossbank.server.ids.StudyId;

/** A study was begun inside Mossbank: modules lay out what it starts with, in the order of the job. */
public record StudyBegun(StudyId studyId) {}
