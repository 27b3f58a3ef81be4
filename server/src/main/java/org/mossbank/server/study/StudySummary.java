package org.mossbank.server.study;

import java.time.Instant;
import org.mossbank.server.ids.StudyId;

/**
 * A study in a list.
 *
 * @param role  what the person asking is in it
 * @param stage how far its round is
 * @param blind whether names, measures, grades and results are hidden from the person asking
 */
record StudySummary(StudyId id, String title, Instant createdAt, Role role, RoundStage.Stage stage, boolean blind) {}
