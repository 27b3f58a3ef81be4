package org.mossbank.server.candidate;

import jakarta.validation.constraints.DecimalMax;
import jakarta.validation.constraints.DecimalMin;
import jakarta.validation.constraints.Max;
import jakarta.validation.constraints.Min;
import org.mossbank.core.tradeoff.TeamCost;

/**
 * How a team would use what it chooses.
 *
 * @param people     who would use it
 * @param tasksPerDay  a person and working day; a task is taken to take what a prompt of the study did
 * @param daysPerMonth working days a month
 */
public record TeamUse(
        @Min(1) @Max(100_000) int people,
        @DecimalMin("0.01") @DecimalMax("10000") double tasksPerDay,
        @Min(1) @Max(31) int daysPerMonth) {
    TeamCost.Use use() {
        return new TeamCost.Use(people, tasksPerDay, daysPerMonth);
    }

    /** Of all people together. */
    public double tasksAMonth() {
        return use().tasksAMonth();
    }
}
