package org.mossbank.server.study;

import java.time.Instant;
import java.util.UUID;

/**
 * What a person expected before they saw anything.
 *
 * @param expects   who they think will win; empty if they expect nothing
 * @param usesToday what they use today; may be empty
 */
public record Declared(UUID accountId, String expects, String usesToday, Instant declaredAt) {}
