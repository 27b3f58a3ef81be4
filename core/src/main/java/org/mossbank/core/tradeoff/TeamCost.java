package org.mossbank.core.tradeoff;

import java.util.ArrayList;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.OptionalDouble;
import org.mossbank.core.estimate.Require;

/**
 * What a candidate would cost a team in a month, used as stated, in each way in which it can be paid for.
 *
 * <p>With \(n\) people, \(t\) tasks a person and working day, \(d\) working days a month, and \(k\) what one task costs by tokens (a task
 * taken to cost what a prompt of the study did), by tokens it is \(n t d k\) and nothing is stopped. A plan at \(m\) a month and person costs
 * \(n m\); a cap of \(c\) tasks a person and period of \(d_c\) working days stops \(n \max(0, t d_c - c)\, d / d_c\) tasks, taken to be
 * spread evenly over days. Those can be paid for by tokens beside the plan, where that is offered.
 *
 * @param way     how it is paid for
 * @param monthly money a month
 * @param done    tasks that get done in a month
 * @param stopped tasks that a cap stops in a month
 */
public record TeamCost(Way way, double monthly, double done, double stopped) {
    /** How it is paid for. */
    public enum Way {
        TOKENS,
        PLAN,
        /** The plan, and by tokens what its cap stops. */
        PLAN_AND_TOKENS
    }

    /**
     * How a team would use it.
     *
     * @param people     at least 1
     * @param tasksPerDay  a person and working day, above 0
     * @param daysPerMonth working days, 1 to 31
     */
    public record Use(int people, double tasksPerDay, int daysPerMonth) {
        private static final int LONGEST = 31;

        /** @throws IllegalArgumentException if one of them lies outside */
        public Use {
            Require.that(people >= 1, "people", "must be at least 1", people);
            Require.that(
                    tasksPerDay > 0 && Double.isFinite(tasksPerDay), "tasks a day", "must be above 0", tasksPerDay);
            Require.that(daysPerMonth >= 1 && daysPerMonth <= LONGEST, "days a month", "must be 1 to 31", daysPerMonth);
        }

        /** Of all people together. */
        public double tasksAMonth() {
            return people * tasksPerDay * daysPerMonth;
        }
    }

    /**
     * What a plan stops after.
     *
     * @param tasks a person and period, at least 0
     * @param days  working days of the period; a month has those of the use
     */
    public record Cap(double tasks, double days) {}

    /**
     * By what it can be paid for.
     *
     * @param task    money that one task costs by tokens; empty where it is not sold so, or that is not known
     * @param monthly money a month and person for the plan; empty where there is none
     * @param cap     of the plan; empty where it has none, or none that can be counted
     */
    public record Terms(OptionalDouble task, OptionalDouble monthly, Optional<Cap> cap) {}

    /** All ways, that which stops least first, then the cheapest; none where nothing is known. */
    public static List<TeamCost> of(Use use, Terms terms) {
        List<TeamCost> ways = new ArrayList<>();
        double asked = use.tasksAMonth();
        terms.task().ifPresent(k -> ways.add(new TeamCost(Way.TOKENS, asked * k, asked, 0)));
        terms.monthly().ifPresent(m -> {
            double plan = use.people() * m;
            double stopped = terms.cap().map(c -> stopped(use, c)).orElse(0.0);
            ways.add(new TeamCost(Way.PLAN, plan, asked - stopped, stopped));
            if (stopped > 0) {
                terms.task().ifPresent(k -> ways.add(new TeamCost(Way.PLAN_AND_TOKENS, plan + stopped * k, asked, 0)));
            }
        });
        ways.sort(Comparator.comparingDouble((TeamCost c) -> c.stopped).thenComparingDouble(TeamCost::monthly));
        return ways;
    }

    private static double stopped(Use use, Cap cap) {
        double over = Math.max(0, use.tasksPerDay() * cap.days() - cap.tasks());
        return use.people() * over * use.daysPerMonth() / cap.days();
    }

    /** Money for one task that gets done; empty where none does. */
    public OptionalDouble aTask() {
        return done > 0 ? OptionalDouble.of(monthly / done) : OptionalDouble.empty();
    }
}
