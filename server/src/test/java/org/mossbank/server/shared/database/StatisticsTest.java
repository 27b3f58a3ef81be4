package org.mossbank.server.shared.database;

import static org.assertj.core.api.Assertions.assertThat;

import java.lang.reflect.Proxy;
import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import org.awaitility.Awaitility;
import org.mossbank.server.ServerTest;
import org.mossbank.server.figures.FiguresAhead;
import org.mossbank.server.ids.StudyId;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.dao.QueryTimeoutException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.testng.annotations.Test;

/** Where many rows came at once, the database looks at them before it is asked. */
public class StatisticsTest extends ServerTest {
    @Autowired
    private FiguresAhead figures;

    @Autowired
    private JdbcClient database;

    private long times() {
        return database.sql("select analyze_count from pg_stat_user_tables where relname = 'grade'")
                .query(Long.class)
                .single();
    }

    @Test
    public void areRenewedWhenALargeStudyCameIn() {
        long before = times();
        figures.cameIn(StudyId.random(), 10_000);
        // What is counted is told a moment later.
        Awaitility.await().atMost(Duration.ofSeconds(20)).until(() -> times() > before);
    }

    /** A database that answers nothing, and counts who asked. */
    private static JdbcClient deaf(AtomicInteger asked) {
        return (JdbcClient) Proxy.newProxyInstance(
                StatisticsTest.class.getClassLoader(),
                new Class<?>[] {JdbcClient.class},
                (proxy, method, arguments) -> {
                    asked.incrementAndGet();
                    throw new QueryTimeoutException("does not answer");
                });
    }

    @Test
    public void areLeftAloneAfterFew() {
        AtomicInteger asked = new AtomicInteger();
        new Statistics(deaf(asked)).renewAfter(9_999);
        assertThat(asked).hasValue(0);
    }

    /** A study that came in has come in, whether the database could look at it or not. */
    @Test
    public void nothingHangsOnThem() {
        AtomicInteger asked = new AtomicInteger();
        new Statistics(deaf(asked)).renewAfter(10_000);
        assertThat(asked).hasValue(1);
    }
}
