package org.mossbank.server.shared;

import static org.assertj.core.api.Assertions.assertThat;

import java.sql.SQLException;
import java.sql.SQLTransientConnectionException;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.dao.OptimisticLockingFailureException;
import org.springframework.transaction.CannotCreateTransactionException;
import org.testng.annotations.DataProvider;
import org.testng.annotations.Test;

public class FailuresTest {
    @DataProvider
    public Object[][] states() {
        return new Object[][] {
            {"08006", "database-away"},
            {"08001", "database-away"},
            {"57P01", "database-away"},
            {"57P03", "database-away"},
            {"53300", "database-away"},
            {"53100", "database-full"},
            {"25006", "database-full"},
            {"55P03", "busy"},
            {"57014", "busy"},
            {"40P01", "busy"},
            {"42P01", "internal"},
        };
    }

    private static String typeOf(Throwable failure) {
        String type = Failures.of(failure).getBody().getType().toString();
        return type.substring(type.lastIndexOf('/') + 1);
    }

    @Test(dataProvider = "states")
    public void theDatabasesFaultsAreToldByTheirKind(String state, String type) {
        SQLException fault = new SQLException("said by the database", state);
        assertThat(typeOf(new CannotCreateTransactionException("wrapped", new IllegalStateException(fault))))
                .isEqualTo(type);
    }

    @Test
    public void aPoolThatHasNothingToGiveIsBusyUnlessTheDatabaseIsAway() {
        SQLTransientConnectionException busy = new SQLTransientConnectionException("all in use");
        assertThat(typeOf(busy)).isEqualTo("busy");
        SQLTransientConnectionException away =
                new SQLTransientConnectionException("none", new SQLException("gone", "08001"));
        assertThat(typeOf(away)).isEqualTo("database-away");
    }

    @Test
    public void whoeverIsToldToWaitIsToldHowLong() {
        Problem away = Failures.of(new SQLException("gone", "08006"));
        assertThat(away.getHeaders().getFirst("Retry-After")).isEqualTo("3");
        assertThat(away.getBody().getDetail()).isEqualTo("The database cannot be reached; what you give is kept here.");
    }

    @Test
    public void twoWhoChangeTheSameAtOnceAreToldSo() {
        assertThat(typeOf(new OptimisticLockingFailureException("stale"))).isEqualTo("changed-elsewhere");
        assertThat(typeOf(new DataIntegrityViolationException("twice"))).isEqualTo("changed-elsewhere");
    }
}
