package org.mossbank.server;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.LongAdder;
import javax.sql.DataSource;
import org.springframework.beans.factory.config.BeanPostProcessor;
import org.springframework.boot.test.context.TestConfiguration;
import org.springframework.context.annotation.Bean;
import org.springframework.jdbc.datasource.DelegatingDataSource;

/**
 * Refuses a second connection to whoever holds one: a pool whose users wait for each other's second one stands still. It
 * watches all that serves requests or works in the background, in every test of the server.
 */
@TestConfiguration(proxyBeanMethods = false)
public class OneConnection {
    /** How many statements each thread of the server has sent so far, by its name. */
    private static final Map<String, LongAdder> STATEMENTS = new ConcurrentHashMap<>();

    private static final ThreadLocal<Integer> HELD = ThreadLocal.withInitial(() -> 0);

    /** How many statements threads that serve requests have sent, or all the others. */
    public static long statements(boolean serving) {
        return STATEMENTS.entrySet().stream()
                .filter(e -> e.getKey().contains("-exec-") == serving)
                .mapToLong(e -> e.getValue().sum())
                .sum();
    }

    @Bean
    public static BeanPostProcessor oneConnectionAThread() {
        return new BeanPostProcessor() {
            @Override
            public Object postProcessAfterInitialization(Object bean, String name) {
                return bean instanceof DataSource database ? new Watched(database) : bean;
            }
        };
    }

    private static final class Watched extends DelegatingDataSource {
        Watched(DataSource database) {
            super(database);
        }

        @Override
        public Connection getConnection() throws SQLException {
            // The start of the server, migrations above all, is alone and may.
            if (HELD.get() > 0 && !Thread.currentThread().getName().equals("main")) {
                throw new IllegalStateException("one request asks for a second connection while it holds one");
            }
            Connection connection = super.getConnection();
            HELD.set(HELD.get() + 1);
            return watched(connection);
        }

        private static Connection watched(Connection connection) {
            boolean[] open = {true};
            return (Connection) Proxy.newProxyInstance(
                    Watched.class.getClassLoader(), new Class<?>[] {Connection.class}, (proxy, method, arguments) -> {
                        if (method.getName().equals("close") && open[0]) {
                            open[0] = false;
                            HELD.set(HELD.get() - 1);
                        }
                        if (method.getName().equals("prepareStatement")) {
                            STATEMENTS
                                    .computeIfAbsent(Thread.currentThread().getName(), n -> new LongAdder())
                                    .increment();
                        }
                        try {
                            return method.invoke(connection, arguments);
                        } catch (InvocationTargetException e) {
                            throw e.getCause();
                        }
                    });
        }
    }
}
