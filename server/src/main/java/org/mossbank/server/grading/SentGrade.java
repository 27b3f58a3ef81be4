package org.mossbank.server.grading;

import org.mossbank.server.ids.AccountId;
import org.mossbank.server.ids.AnswerId;
import org.mossbank.server.ids.CriterionId;

/** A grade on a sheet that was sent in. */
public record SentGrade(AccountId raterId, AnswerId answerId, CriterionId criterionId, int level) {}
