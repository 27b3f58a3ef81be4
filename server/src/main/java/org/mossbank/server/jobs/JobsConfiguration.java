package org.mossbank.server.jobs;

import com.github.kagkarlsson.scheduler.Scheduler;
import com.github.kagkarlsson.scheduler.SchedulerClient;
import com.github.kagkarlsson.scheduler.SchedulerName;
import com.github.kagkarlsson.scheduler.logging.LogLevel;
import com.github.kagkarlsson.scheduler.serializer.Serializer;
import com.github.kagkarlsson.scheduler.task.OnStartup;
import com.github.kagkarlsson.scheduler.task.Task;
import java.time.Clock;
import java.time.Duration;
import java.util.ArrayList;
import java.util.List;
import java.util.UUID;
import javax.sql.DataSource;
import org.jspecify.annotations.Nullable;
import org.mossbank.server.shared.SystemOnly;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.event.ContextClosedEvent;
import org.springframework.context.event.EventListener;
import org.springframework.jdbc.datasource.TransactionAwareDataSourceProxy;
import org.springframework.stereotype.Service;
import tools.jackson.databind.json.JsonMapper;

/**
 * Tasks are beans of the modules whose work they are; the library claims them by the database's clock, one server at a
 * time, and another server takes up what a dead one left.
 */
@Configuration(proxyBeanMethods = false)
class JobsConfiguration {
    /** Orders stand in the database as JSON, so that another release can read them. */
    private record JsonData(JsonMapper mapper) implements Serializer {
        @Override
        public byte[] serialize(Object data) {
            return mapper.writeValueAsBytes(data);
        }

        @Override
        public <T> T deserialize(Class<T> type, byte[] data) {
            return mapper.readValue(data, type);
        }
    }

    /** An order is placed in the transaction of whoever places it: both or neither. */
    @Bean
    SchedulerClient orders(DataSource database, JsonMapper mapper) {
        return SchedulerClient.Builder.create(new TransactionAwareDataSourceProxy(database))
                .serializer(new JsonData(mapper))
                .build();
    }

    /** Runs what is due on this server. */
    @Service
    static class Runner {
        private static final Duration LOOKS_EVERY = Duration.ofSeconds(3);
        private static final Duration BEATS_EVERY = Duration.ofSeconds(5);
        private static final int MISSED_BEATS = 4;
        private static final int THREADS = 2;
        private static final double LOWER = 0.5;
        private static final double UPPER = 2;
        private static final Duration LONGEST_END = Duration.ofSeconds(5);

        private final DataSource database;
        private final ObjectProvider<Task<?>> tasks;
        private final Clock clock;
        private final JsonMapper mapper;

        @Nullable
        private Scheduler scheduler;

        Runner(DataSource database, ObjectProvider<Task<?>> tasks, Clock clock, JsonMapper mapper) {
            this.database = database;
            this.tasks = tasks;
            this.clock = clock;
            this.mapper = mapper;
        }

        @SystemOnly
        @EventListener(ApplicationReadyEvent.class)
        public void start() {
            List<Task<?>> known = new ArrayList<>();
            List<Task<?>> begun = new ArrayList<>();
            tasks.forEach(task -> (task instanceof OnStartup ? begun : known).add(task));
            Scheduler started = builder(known, begun);
            scheduler = started;
            started.start();
        }

        @SuppressWarnings({"unchecked", "rawtypes"})
        private Scheduler builder(List<Task<?>> known, List<Task<?>> begun) {
            return Scheduler.create(database, known)
                    .startTasks((List) begun)
                    // Each process is one of its own, also of several on one machine.
                    .schedulerName(new SchedulerName.Fixed("mossbank-" + UUID.randomUUID()))
                    .serializer(new JsonData(mapper))
                    .clock(clock::instant)
                    .threads(THREADS)
                    .pollingInterval(LOOKS_EVERY)
                    .heartbeatInterval(BEATS_EVERY)
                    .missedHeartbeatsLimit(MISSED_BEATS)
                    .pollUsingLockAndFetch(LOWER, UPPER)
                    // What failed is tried again; one line of it is enough.
                    .failureLogging(LogLevel.WARN, false)
                    .shutdownMaxWait(LONGEST_END)
                    .build();
        }

        @SystemOnly
        @EventListener(ContextClosedEvent.class)
        public void stop() {
            Scheduler running = scheduler;
            scheduler = null;
            if (running != null) {
                running.stop();
            }
        }
    }
}
