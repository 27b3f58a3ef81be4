package org.mossbank.testkit;

import java.net.URI;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.Map;
import java.util.UUID;

/** An empty database of its own in the cluster that {@code ./mossbank check} starts. */
public record TestDatabase(String url, String user, String password) {

    /** @throws IllegalStateException if no test cluster is named in the environment */
    public static TestDatabase create() {
        return create("");
    }

    /** On a disk that can be filled. */
    public static TestDatabase createOn(SmallDisk disk) {
        String server = setting("MOSSBANK_TEST_DB_URL");
        try (Connection connection = DriverManager.getConnection(
                        server + "postgres", setting("MOSSBANK_TEST_DB_USER"), setting("MOSSBANK_TEST_DB_PASSWORD"));
                Statement statement = connection.createStatement()) {
            // There is one disk for a whole run, and more than one suite may want it.
            if (!statement
                    .executeQuery("select 1 from pg_tablespace where spcname = 'small'")
                    .next()) {
                statement.execute("create tablespace small location '" + disk.space() + "'");
            }
        } catch (SQLException e) {
            throw new IllegalStateException("cannot use the small disk", e);
        }
        return create(" tablespace small");
    }

    /** With all that is in it; nobody may be connected to it. */
    TestDatabase copy() {
        return create(" template " + url.substring(url.lastIndexOf('/') + 1));
    }

    private static TestDatabase create(String how) {
        String server = setting("MOSSBANK_TEST_DB_URL");
        String user = setting("MOSSBANK_TEST_DB_USER");
        String password = setting("MOSSBANK_TEST_DB_PASSWORD");
        String name = "test_" + UUID.randomUUID().toString().replace("-", "");
        try (Connection connection = DriverManager.getConnection(server + "postgres", user, password);
                Statement statement = connection.createStatement()) {
            statement.execute("create database " + name + how);
        } catch (SQLException e) {
            throw new IllegalStateException("cannot make a test database", e);
        }
        return new TestDatabase(server + name, user, password);
    }

    private static String setting(String name) {
        String value = System.getenv(name);
        if (value == null) {
            throw new IllegalStateException(name + " is not set; run the tests with ./mossbank check");
        }
        return value;
    }

    /** The same database behind a wire that can be cut. */
    public TestDatabase behind(Wire wire) {
        return new TestDatabase(
                url.replaceFirst(
                        "127\\.0\\.0\\.1:\\d+", "127.0.0.1:" + wire.address().getPort()),
                user,
                password);
    }

    /** Where it listens. */
    public URI address() {
        return URI.create(url.substring("jdbc:".length()));
    }

    /** As the server reads it from its environment. */
    public Map<String, String> environment() {
        return Map.of("MOSSBANK_DB_URL", url, "MOSSBANK_DB_USER", user, "MOSSBANK_DB_PASSWORD", password);
    }

    public Connection connect() throws SQLException {
        return DriverManager.getConnection(url, user, password);
    }
}
