package org.mossbank.server.run;

import java.math.BigDecimal;
import org.jspecify.annotations.Nullable;

/**
 * What a run would ask and cost at most.
 *
 * @param requests     with follow-ups, without tries that bring nothing
 * @param inputTokens  at most
 * @param outputTokens at most
 * @param cost         at most; absent if no candidate has a price for tokens
 */
record RunForecast(
        int cells,
        int requests,
        long inputTokens,
        long outputTokens,
        @Nullable BigDecimal cost,
        @Nullable String currency) {}
