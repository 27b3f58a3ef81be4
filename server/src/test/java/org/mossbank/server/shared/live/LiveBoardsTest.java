package org.mossbank.server.shared.live;

import java.time.Duration;
import java.util.concurrent.atomic.AtomicInteger;
import org.awaitility.Awaitility;
import org.mossbank.server.ServerTest;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.jdbc.core.JdbcTemplate;
import org.testng.annotations.Test;

public class LiveBoardsTest extends ServerTest {
    private static final Duration NEVER_BY_ITSELF = Duration.ofHours(1);

    @Autowired
    private JdbcTemplate sql;

    private static void grows(AtomicInteger looked, Runnable change) {
        int before = looked.get();
        change.run();
        Awaitility.await().until(() -> looked.get() > before);
    }

    /** On the connection of another server, or of nobody's: the database tells it. */
    @Test
    public void lookWhenTheDatabaseTellsThatSomethingChangedAndAlsoAfterItWasAway() {
        News news = new News(DATABASE.url(), DATABASE.user(), DATABASE.password());
        LiveBoards boards = new LiveBoards(news, NEVER_BY_ITSELF);
        AtomicInteger looked = new AtomicInteger();
        boards.follow(0, looked::incrementAndGet, n -> true);
        Awaitility.await()
                .until(() -> sql.queryForObject(
                                "select count(*) from pg_stat_activity where application_name = 'mossbank-news'"
                                        + " and datname = current_database() and query like 'listen%'",
                                Long.class)
                        >= 1);
        Awaitility.await().during(Duration.ofSeconds(1)).until(() -> looked.get() >= 1);

        for (String table : new String[] {"run", "run_cell", "trial"}) {
            grows(looked, () -> sql.update("delete from " + table + " where false"));
        }
        grows(
                looked,
                () -> sql.queryForList("select pg_terminate_backend(pid) from pg_stat_activity"
                        + " where application_name = 'mossbank-news' and datname = current_database()"));
        Awaitility.await().until(() -> {
            int before = looked.get();
            sql.update("delete from run where false");
            Thread.sleep(500);
            return looked.get() > before;
        });
        boards.destroy();
    }

    @Test
    public void lookOnceInAWhileByThemselves() {
        LiveBoards boards =
                new LiveBoards(new News("jdbc:postgresql://127.0.0.1:1/none", "x", "x"), Duration.ofMillis(50));
        AtomicInteger looked = new AtomicInteger();
        boards.follow(0, looked::incrementAndGet, n -> true);
        Awaitility.await().until(() -> looked.get() > 5);
        boards.destroy();
    }
}
