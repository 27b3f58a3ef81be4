package org.mossbank.server.study;

import java.time.Instant;
import org.mossbank.server.ids.AccountId;

/**
 * What a person expected before they saw anything.
 *
 * @param expects   who they think will win; empty if they expect nothing
 * @param usesToday what they use today; may be empty
 */
public record Declared(AccountId accountId, String expects, String usesToday, Instant declaredAt) {}
