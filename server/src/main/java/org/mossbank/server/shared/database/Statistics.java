package org.mossbank.server.shared.database;

import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.dao.DataAccessException;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Component;
import org.springframework.transaction.CannotCreateTransactionException;

/**
 * What the database knows of how its rows are spread, by which it plans what is asked. It looks for itself about once a minute;
 * where hundreds of thousands of rows came at once, the first question would be planned for a few.
 */
@Component
public class Statistics {
    private static final Logger LOG = LoggerFactory.getLogger(Statistics.class);
    /** Rows that came at once. Fewer are read whole whatever the plan. */
    private static final int MANY = 10_000;

    private final JdbcClient database;

    Statistics(JdbcClient database) {
        this.database = database;
    }

    /** Outside any transaction, as others are to see it; nothing hangs on it. Takes about half a second, however many rows there are. */
    public void renewAfter(int rows) {
        if (rows < MANY) {
            return;
        }
        try {
            database.sql("analyze").update();
        } catch (DataAccessException | CannotCreateTransactionException e) {
            LOG.info("the database will look at its new rows by itself", e);
        }
    }
}
