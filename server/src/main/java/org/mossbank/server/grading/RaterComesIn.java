package org.mossbank.server.grading;

import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.StudyId;

/** A rater gets their first sheets while the round is open; told before they do, within the same transaction. */
public record RaterComesIn(StudyId studyId, AccountId raterId) {}
