package org.mossbank.server;

import java.lang.reflect.InvocationTargetException;
import java.lang.reflect.Proxy;
import java.sql.Connection;
import java.sql.SQLException;
import java.util.Collection;
import java.util.List;
import java.util.Map;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.atomic.LongAdder;
import java.util.function.Predicate;
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
    private static final StackWalker STACK = StackWalker.getInstance();

    /** How many statements have been sent so far, by who sent them. */
    private static final Map<Sender, LongAdder> STATEMENTS = new ConcurrentHashMap<>();

    /** Whether somebody asks by which methods; looking through the stack at every statement would slow all tests. */
    private static volatile boolean watching;

    /** Tells statements apart by methods from now on, or no more. */
    public static void watch(boolean on) {
        watching = on;
    }

    /** A thread, the methods of ours that it was in, each told as {@code Class.method}, and what it sent. */
    private record Sender(String thread, List<String> methods, String sql) {
        static Sender of(Object sql) {
            List<String> methods = watching
                    ? STACK.walk(frames -> frames.filter(f -> f.getClassName().startsWith("org.mossbank.server."))
                            .map(f -> method(f.getClassName(), f.getMethodName()))
                            .distinct()
                            .toList())
                    : List.of();
            return new Sender(Thread.currentThread().getName(), methods, watching ? sql.toString() : "");
        }

        /** A proxy that commits when the method has ended is at work for it. */
        private static String method(String type, String name) {
            return type.replaceFirst(".*\\.", "").replaceFirst("\\$\\$.*", "") + "." + name;
        }
    }

    private static final ThreadLocal<Integer> HELD = ThreadLocal.withInitial(() -> 0);

    /** How many statements threads that serve requests have sent. */
    public static long statementsOfRequests() {
        return statements(sender -> sender.thread.contains("-exec-"));
    }

    /** How many statements with a word in them any of these methods, told as {@code Class.method}, has sent while watched. */
    public static long statementsOf(Collection<String> methods, String word) {
        return statements(
                sender -> sender.sql.contains(word) && sender.methods.stream().anyMatch(methods::contains));
    }

    private static long statements(Predicate<Sender> by) {
        return STATEMENTS.entrySet().stream()
                .filter(e -> by.test(e.getKey()))
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
                                    .computeIfAbsent(Sender.of(arguments[0]), sender -> new LongAdder())
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
