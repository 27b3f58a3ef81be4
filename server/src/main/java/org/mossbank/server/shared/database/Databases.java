package org.mossbank.server.shared.database;

import com.zaxxer.hikari.HikariConfig;
import com.zaxxer.hikari.HikariDataSource;
import io.micrometer.core.instrument.MeterRegistry;
import java.util.Map;
import javax.sql.DataSource;
import org.springframework.beans.factory.ObjectProvider;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.jdbc.datasource.lookup.AbstractRoutingDataSource;

/**
 * Two pools of connections to one database: one for what is done at once, such as a grade, and a small one for what is read
 * whole, so that no long read stands in the way of a grade. Everything on the way to the database has an end: whoever
 * cannot reach it, or waits for somebody's lock, is told within seconds.
 */
@Configuration(proxyBeanMethods = false)
class Databases {
    private static final int SECONDS_TO_CONNECT = 3;
    private static final int LONGEST_WAIT_FOR_A_LOCK = 3_000;
    private static final int LONGEST_STATEMENT = 20_000;
    private static final int LONGEST_READ = 60_000;

    /** Longer than the longest statement, so that it ends only those whose answer will never come. */
    private static final int SOCKET_SECONDS_BEYOND = 5;

    /**
     * Where, as whom, and how long a connection is waited for, in milliseconds: a request may ask twice, once for its session
     * and once to let it go, and is to be answered within five seconds. Half of it goes to asking whether an old one lives.
     */
    private record Place(String url, String user, String password, long patience) {}

    /** Which pool the thread's next connection comes from. */
    private static final ThreadLocal<Boolean> READS_WHOLE = ThreadLocal.withInitial(() -> false);

    static void readWhole(Runnable read) {
        READS_WHOLE.set(true);
        try {
            read.run();
        } finally {
            READS_WHOLE.remove();
        }
    }

    @Bean
    DataSource dataSource(
            @Value("${spring.datasource.url}") String url,
            @Value("${spring.datasource.username}") String user,
            @Value("${spring.datasource.password}") String password,
            @Value("${mossbank.connections.at-once}") int atOnce,
            @Value("${mossbank.connections.whole}") int whole,
            @Value("${mossbank.connections.patience-ms}") long patience,
            @Value("${mossbank.connections.start-patience-ms}") long startPatience,
            ObjectProvider<MeterRegistry> meters) {
        Place place = new Place(url, user, password, patience);
        HikariDataSource first = pool("at-once", place, atOnce, LONGEST_STATEMENT, startPatience);
        HikariDataSource second = pool("whole", place, whole, LONGEST_READ, startPatience);
        meters.ifAvailable(registry -> {
            first.setMetricRegistry(registry);
            second.setMetricRegistry(registry);
        });
        Routed routed = new Routed(first, second);
        return new OneAsksForAll(routed, routed::close, System::nanoTime);
    }

    private static HikariDataSource pool(String name, Place place, int size, int longestStatement, long startPatience) {
        HikariConfig pool = new HikariConfig();
        pool.setPoolName(name);
        pool.setJdbcUrl(place.url);
        pool.setUsername(place.user);
        pool.setPassword(place.password);
        pool.setMaximumPoolSize(size);
        pool.setConnectionTimeout(place.patience);
        pool.setValidationTimeout(place.patience / 2);
        pool.setInitializationFailTimeout(startPatience);
        pool.addDataSourceProperty("connectTimeout", SECONDS_TO_CONNECT);
        pool.addDataSourceProperty("loginTimeout", SECONDS_TO_CONNECT);
        pool.addDataSourceProperty("socketTimeout", longestStatement / 1_000 + SOCKET_SECONDS_BEYOND);
        pool.addDataSourceProperty("tcpKeepAlive", true);
        // Many rows go as one statement.
        pool.addDataSourceProperty("reWriteBatchedInserts", true);
        pool.setConnectionInitSql(
                "set statement_timeout = %d; set lock_timeout = %d; set idle_in_transaction_session_timeout = %d"
                        .formatted(longestStatement, LONGEST_WAIT_FOR_A_LOCK, 2 * LONGEST_READ));
        return new HikariDataSource(pool);
    }

    private static final class Routed extends AbstractRoutingDataSource {
        private final HikariDataSource atOnce;
        private final HikariDataSource whole;

        Routed(HikariDataSource atOnce, HikariDataSource whole) {
            this.atOnce = atOnce;
            this.whole = whole;
            setTargetDataSources(Map.of(false, atOnce, true, whole));
            setDefaultTargetDataSource(atOnce);
            initialize();
        }

        @Override
        protected Object determineCurrentLookupKey() {
            return READS_WHOLE.get();
        }

        private void close() {
            atOnce.close();
            whole.close();
        }
    }
}
