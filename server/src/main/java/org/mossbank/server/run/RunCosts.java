package org.mossbank.server.run;

import java.math.BigDecimal;
import java.math.RoundingMode;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.candidate.CandidateContent;

/** What asking costs, in units of the candidate's currency. */
final class RunCosts {
    private static final int DECIMALS = 6;
    private static final BigDecimal MILLION = BigDecimal.valueOf(1_000_000);
    /** Where no count is given. In English text and code a token is about four characters. */
    private static final int CHARACTERS_A_TOKEN = 4;

    private RunCosts() {}

    /** At the candidate's prices, rounded up; empty if it has none for tokens. */
    static Optional<BigDecimal> of(CandidateContent.Price price, long inputTokens, long outputTokens) {
        if (price.inputPerMillion() == null && price.outputPerMillion() == null) {
            return Optional.empty();
        }
        return Optional.of(part(price.inputPerMillion(), inputTokens)
                .add(part(price.outputPerMillion(), outputTokens))
                .divide(MILLION, DECIMALS, RoundingMode.UP));
    }

    private static BigDecimal part(@Nullable BigDecimal perMillion, long tokens) {
        return perMillion == null ? BigDecimal.ZERO : perMillion.multiply(BigDecimal.valueOf(tokens));
    }

    static long estimatedTokens(String text) {
        return (text.length() + CHARACTERS_A_TOKEN - 1L) / CHARACTERS_A_TOKEN;
    }

    /** Without the zeros that the column's scale adds. */
    static @Nullable BigDecimal plain(@Nullable BigDecimal amount) {
        return amount == null ? null : plainOrZero(amount);
    }

    static BigDecimal plainOrZero(BigDecimal amount) {
        return new BigDecimal(amount.stripTrailingZeros().toPlainString());
    }
}
