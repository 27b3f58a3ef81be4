package org.mossbank.server.shared.live;

import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Properties;
import org.postgresql.PGConnection;
import org.postgresql.PGNotification;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.stereotype.Component;

/**
 * What other servers do, as the database tells it (PostgreSQL's LISTEN): on a connection of its own, as one of the pool would be
 * given away. Whatever was told while there was no connection is made up for by calling once when there is one again.
 */
@Component
class News {
    private static final Logger LOG = LoggerFactory.getLogger(News.class);

    private static final int SILENCE_MS = 10_000;
    private static final int SECONDS_TO_ANSWER = 5;
    private static final long PAUSE_MS = 1_000;

    private final String url;
    private final String user;
    private final String password;
    private volatile boolean over;

    News(
            @Value("${spring.datasource.url}") String url,
            @Value("${spring.datasource.username}") String user,
            @Value("${spring.datasource.password}") String password) {
        this.url = url;
        this.user = user;
        this.password = password;
    }

    /** From now on, until it is over, something is called whenever something was told; it must be quick. */
    void tell(Runnable heard) {
        Thread thread = new Thread(() -> listen(heard), "live-news");
        thread.setDaemon(true);
        thread.start();
    }

    void end() {
        over = true;
    }

    private void listen(Runnable heard) {
        boolean said = false;
        while (!over) {
            try (Connection connection = connect()) {
                heard.run();
                said = false;
                hear(connection, heard);
            } catch (SQLException e) {
                if (!said && !over) {
                    LOG.warn("the database tells nothing at this moment; live pages ask by themselves meanwhile");
                    said = true;
                }
                pause();
            }
        }
    }

    private Connection connect() throws SQLException {
        Properties how = new Properties();
        how.setProperty("user", user);
        how.setProperty("password", password);
        how.setProperty("connectTimeout", String.valueOf(SECONDS_TO_ANSWER));
        how.setProperty("tcpKeepAlive", "true");
        how.setProperty("ApplicationName", "mossbank-news");
        Connection connection = DriverManager.getConnection(url, how);
        try (Statement listening = connection.createStatement()) {
            listening.execute("listen mossbank_live");
        } catch (SQLException e) {
            connection.close();
            throw e;
        }
        return connection;
    }

    private void hear(Connection connection, Runnable heard) throws SQLException {
        PGConnection told = connection.unwrap(PGConnection.class);
        while (!over) {
            PGNotification[] news = told.getNotifications(SILENCE_MS);
            if (news != null && news.length > 0) {
                heard.run();
            } else if (!connection.isValid(SECONDS_TO_ANSWER)) {
                throw new SQLException("the connection is gone");
            }
        }
    }

    private static void pause() {
        try {
            Thread.sleep(PAUSE_MS);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
