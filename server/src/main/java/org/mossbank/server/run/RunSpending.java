package org.mossbank.server.run;

import jakarta.persistence.Column;
import jakarta.persistence.Embeddable;
import java.math.BigDecimal;

/** What a cell's requests took, and what the one under way may take at most. */
@Embeddable
class RunSpending {
    @Column(precision = 14, scale = 6)
    private BigDecimal reservedCost = BigDecimal.ZERO;

    private long reservedTokens;

    @Column(precision = 14, scale = 6)
    private BigDecimal spentCost = BigDecimal.ZERO;

    private long spentTokens;

    protected RunSpending() {}

    static RunSpending of(BigDecimal cost, long tokens) {
        RunSpending spending = new RunSpending();
        spending.more(cost, tokens);
        return spending;
    }

    void reserve(BigDecimal cost, long tokens) {
        reservedCost = cost;
        reservedTokens = tokens;
    }

    void release() {
        reserve(BigDecimal.ZERO, 0);
    }

    /** Beside what counted before. */
    void more(BigDecimal cost, long tokens) {
        spentCost = spentCost.add(cost);
        spentTokens += tokens;
    }

    BigDecimal reservedCost() {
        return reservedCost;
    }

    long reservedTokens() {
        return reservedTokens;
    }

    BigDecimal cost() {
        return RunCosts.plainOrZero(spentCost);
    }

    long tokens() {
        return spentTokens;
    }
}
