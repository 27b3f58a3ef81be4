package org.mossbank.server.study;

import java.time.Instant;

/**
 * That a closed brief was opened again.
 *
 * @param by    the person's name
 * @param terms what the rule said before, in words
 */
public record Reopening(Instant closedAt, Instant reopenedAt, String by, String reason, String terms) {}
