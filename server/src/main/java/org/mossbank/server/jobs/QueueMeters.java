package org.mossbank.server.jobs;

import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.binder.MeterBinder;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;

/** How long what waits has waited, and how much there is, by the database's clock: asked for when somebody measures. */
@Component
class QueueMeters implements MeterBinder {
    /** Seconds since the oldest thing could have been begun that nobody is at. */
    private enum Oldest {
        ANSWERS("""
                select extract(epoch from now() - min(coalesce(c.not_before, r.started_at))) from run_cell c
                join run r on r.id = c.run_id where r.state = 'RUNNING' and c.state = 'WAITING'
                and coalesce(c.not_before, r.started_at) <= now()"""),
        JOBS("""
                select extract(epoch from now() - min(execution_time)) from scheduled_tasks
                where not picked and execution_time <= now()""");

        private final String question;

        Oldest(String question) {
            this.question = question;
        }
    }

    private final JdbcClient database;

    QueueMeters(JdbcClient database) {
        this.database = database;
    }

    @Override
    public void bindTo(MeterRegistry meters) {
        for (Oldest oldest : Oldest.values()) {
            Gauge.builder("mossbank.queue.age", () -> asked(oldest.question))
                    .tag("queue", oldest.name().toLowerCase(java.util.Locale.ROOT))
                    .baseUnit("seconds")
                    .description("How long the oldest has waited that could have been begun")
                    .register(meters);
        }
        Gauge.builder("mossbank.queue.trials", () -> asked("select count(*) from trial where state = 'WAITING'"))
                .description("Trials that wait for a server")
                .register(meters);
    }

    /** Nothing is told while the database is away: a number would be a wrong one. */
    private double asked(String question) {
        try {
            return database.sql(question).query(Double.class).optional().orElse(0.0);
        } catch (DataAccessException e) {
            return Double.NaN;
        }
    }
}
