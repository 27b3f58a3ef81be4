package org.mossbank.server.trial;

import java.time.Instant;
import org.mossbank.server.ids.PromptId;

/**
 * The check of a prompt.
 *
 * @param revision  counts up with every change
 * @param changedBy by name
 */
record CheckOfPrompt(PromptId promptId, CheckContent content, int revision, Instant changedAt, String changedBy) {}
