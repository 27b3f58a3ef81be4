package org.mossbank.server.shared.database;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import java.util.concurrent.TimeUnit;
import org.mossbank.server.shared.Failures;
import org.springframework.jdbc.datasource.AbstractDataSource;
import org.testng.annotations.BeforeMethod;
import org.testng.annotations.Test;

public class OneAsksForAllTest {
    private static final SQLTransientConnectionException AWAY =
            new SQLTransientConnectionException("nothing to give", new SQLException("refused", "08001"));

    private static final class Pool extends AbstractDataSource {
        private SQLException refusal;
        private int asked;

        @Override
        public Connection getConnection() throws SQLException {
            asked++;
            if (refusal != null) {
                throw refusal;
            }
            return (Connection) Proxy.newProxyInstance(
                    Pool.class.getClassLoader(), new Class<?>[] {Connection.class}, (proxy, method, given) -> null);
        }

        @Override
        public Connection getConnection(String user, String password) throws SQLException {
            return getConnection();
        }
    }

    private Pool pool;
    private long now;
    private OneAsksForAll connections;

    @BeforeMethod
    void begin() {
        pool = new Pool();
        now = 0;
        connections = new OneAsksForAll(pool, () -> {}, () -> now);
    }

    private void isRefused() {
        assertThatThrownBy(() -> connections.getConnection()).isInstanceOf(SQLException.class);
    }

    private void pass(long milliseconds) {
        now += TimeUnit.MILLISECONDS.toNanos(milliseconds);
    }

    @Test
    public void whoComesAfterOneThatFoundItAwayIsToldAtOnce() throws SQLException {
        connections.getConnection();
        pool.refusal = AWAY;
        isRefused();
        isRefused();
        isRefused();

        assertThat(pool.asked).isEqualTo(2);
        assertThatThrownBy(() -> connections.getConnection())
                .satisfies(
                        e -> assertThat(Failures.of((SQLException) e).getBody().getType())
                                .hasToString("https://mossbank.example/problems/database-away"));
    }

    @Test
    public void oneTriesEachSecondAndAllAreServedOnceItIsBack() throws SQLException {
        pool.refusal = AWAY;
        isRefused();
        pass(999);
        isRefused();
        assertThat(pool.asked).isEqualTo(1);
        pass(1);
        isRefused();
        isRefused();
        assertThat(pool.asked).isEqualTo(2);
        pool.refusal = null;
        pass(1_000);
        assertThat(connections.getConnection()).isNotNull();
        assertThat(connections.getConnection()).isNotNull();
    }

    @Test
    public void aPoolThatIsAllInUseSaysNothingAboutTheNextTime() {
        pool.refusal = new SQLTransientConnectionException("all in use");
        isRefused();
        isRefused();
        assertThat(pool.asked).isEqualTo(2);
    }
}
