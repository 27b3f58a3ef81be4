package org.mossbank.server.shared.database;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.persistence.EntityManager;
import java.util.Objects;
import org.mossbank.server.ServerTest;
import org.springframework.beans.factory.annotation.Autowired;
import org.springframework.transaction.support.TransactionTemplate;
import org.testng.annotations.Test;

/** What a connection learnt while there were few rows is not what many are written by. */
public class PlansTest extends ServerTest {
    @Autowired
    private EntityManager entities;

    @Autowired
    private TransactionTemplate transactions;

    private long readWhole() {
        return ((Number) entities.createNativeQuery(
                                "select coalesce(max(seq_scan), 0) from pg_stat_xact_user_tables where relname = 'referred_to'")
                        .getSingleResult())
                .longValue();
    }

    private void run(String sql) {
        entities.createNativeQuery(sql).executeUpdate();
    }

    /** How often the table is read whole for 50 rows that refer to it, when a connection has known it as a small one. */
    private long readWholeForMany(boolean anew) {
        return Objects.requireNonNull(transactions.execute(status -> {
            run("create table referred_to (id int primary key, filler text)");
            run("create table refers (id int references referred_to)");
            run("insert into referred_to select i, '' from generate_series(1, 5) i");
            run("analyze referred_to");
            for (int i = 0; i < 20; i++) {
                run("insert into refers values (1)");
            }
            run("insert into referred_to select i, repeat('x', 200) from generate_series(10, 10000) i");
            if (anew) {
                Plans.anew(entities, 10_000);
            }
            long before = readWhole();
            run("insert into refers select 9000 from generate_series(1, 50)");
            long more = readWhole() - before;
            status.setRollbackOnly();
            return more;
        }));
    }

    @Test
    public void aConnectionThatKnewFewRowsIsToldThatThereAreMany() {
        assertThat(readWholeForMany(true)).isZero();
        assertThat(readWholeForMany(false)).as("else it would not be needed").isEqualTo(50);
    }
}
