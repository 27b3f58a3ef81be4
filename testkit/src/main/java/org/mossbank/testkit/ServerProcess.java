package org.mossbank.testkit;

import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Files;
import java.nio.file.Path;
import java.time.Duration;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import java.util.jar.JarFile;
import java.util.stream.IntStream;
import org.awaitility.Awaitility;
import org.awaitility.core.ConditionTimeoutException;

/** The packaged server as a process of its own, as users run it. */
public final class ServerProcess implements AutoCloseable {
    /** One whose clock is moved takes three minutes on two processors. */
    private static final Duration START_PATIENCE = Duration.ofMinutes(8);

    /** Each is tried once by this process; others of the kind begin elsewhere. */
    private static final AtomicInteger NEXT_PORT =
            new AtomicInteger(12_000 + (int) (ProcessHandle.current().pid() % 180) * 100);

    /** A processor that browsers and many tests share may stand still for longer than a user should wait for the database. */
    public static final Map<String, String> AMONG_MANY = Map.of("MOSSBANK_CONNECTIONS_PATIENCE_MS", "15000");

    private final Process process;
    private final URI address;
    private final File log;

    private ServerProcess(Process process, URI address, File log) {
        this.process = process;
        this.address = address;
        this.log = log;
    }

    /**
     * Starts the server on a free port and waits until it answers.
     *
     * @param root     the folder of the project
     * @param settings further environment, for example the demo mode
     */
    public static ServerProcess start(Path root, TestDatabase database, Map<String, String> settings) {
        return start(root, QuickStart.of(root).arguments(), database, settings);
    }

    /** The same with what is run named: what comes after the settings of the virtual machine. */
    static ServerProcess start(Path root, List<String> run, TestDatabase database, Map<String, String> settings) {
        ServerProcess server = launch(root, run, database, settings);
        server.awaitAnswer();
        return server;
    }

    /** Starts the server and kills it before it may be ready. */
    public static void killWhileStarting(Path root, TestDatabase database, Duration after) throws InterruptedException {
        ServerProcess server = launch(root, QuickStart.of(root).arguments(), database, Map.of());
        // Seldom it has ended by itself before.
        server.process.waitFor(after.toMillis(), TimeUnit.MILLISECONDS);
        server.kill();
    }

    private static ServerProcess launch(
            Path root, List<String> run, TestDatabase database, Map<String, String> settings) {
        try {
            int port = freePort();
            File log = root.resolve("e2e/target/server-" + port + ".log").toFile();
            Files.createDirectories(log.toPath().getParent());
            List<String> command = new ArrayList<>(List.of(
                    "java",
                    "-XX:TieredStopAtLevel=" + settings.getOrDefault("MOSSBANK_JIT", "1"),
                    "-Xmx1g",
                    "@" + root.resolve("server/jvm.args"),
                    "-Dspring.aot.enabled=" + hasWorkedOutBeans(QuickStart.packed(root))));
            command.addAll(run);
            ProcessBuilder builder =
                    new ProcessBuilder(command).redirectErrorStream(true).redirectOutput(log);
            builder.environment().putAll(database.environment());
            builder.environment().put("MOSSBANK_PORT", String.valueOf(port));
            // Tests and benches are a few people at one address, and never pause to think.
            builder.environment().put("MOSSBANK_REQUESTS_ACCOUNT", "1000000");
            builder.environment().put("MOSSBANK_REQUESTS_ADDRESS", "1000000");
            builder.environment().putAll(settings);
            ServerProcess server = new ServerProcess(
                    builder.start(),
                    URI.create("http://127.0.0.1:" + port + settings.getOrDefault("MOSSBANK_PATH", "")),
                    log);
            Runtime.getRuntime().addShutdownHook(new Thread(server::kill));
            return server;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** In demo mode, with the demo study loaded. */
    public static ServerProcess startDemo(Path root, TestDatabase database) {
        return startDemo(root, database, Map.of());
    }

    /** In demo mode, with further settings. */
    public static ServerProcess startDemo(Path root, TestDatabase database, Map<String, String> more) {
        return start(root, database, demo(root, more));
    }

    static Map<String, String> demo(Path root, Map<String, String> more) {
        Map<String, String> settings = new HashMap<>(more);
        settings.put("MOSSBANK_DEMO", "true");
        settings.put("MOSSBANK_DEMO_FOLDER", root.resolve("demo").toString());
        return settings;
    }

    /** A server that was not built to start quickly must not be told to. */
    private static boolean hasWorkedOutBeans(Path jar) throws IOException {
        try (JarFile file = new JarFile(jar.toFile())) {
            return file.stream().anyMatch(e -> e.getName().endsWith("__ApplicationContextInitializer.class"));
        }
    }

    /**
     * Below those that the system hands out for connections: a server takes up to a minute to bind its port, and of those that are
     * handed out a neighbour's connection to the database may have taken it by then.
     */
    private static int freePort() {
        return IntStream.generate(NEXT_PORT::incrementAndGet)
                .filter(ServerProcess::isFree)
                .findFirst()
                .orElseThrow();
    }

    private static boolean isFree(int port) {
        try (ServerSocket socket = new ServerSocket()) {
            socket.bind(new InetSocketAddress(port));
            return true;
        } catch (IOException e) {
            return false;
        }
    }

    private void awaitAnswer() {
        HttpClient http = HttpClient.newHttpClient();
        HttpRequest request = HttpRequest.newBuilder(URI.create(address + "/actuator/health/readiness"))
                .build();
        try {
            Awaitility.await()
                    .atMost(START_PATIENCE)
                    .pollInterval(Duration.ofMillis(200))
                    .until(() -> !process.isAlive() || answers(http, request));
        } catch (ConditionTimeoutException e) {
            kill();
        }
        if (!process.isAlive()) {
            throw new IllegalStateException("the server did not start:\n" + log());
        }
    }

    private static boolean answers(HttpClient http, HttpRequest request) throws InterruptedException {
        try {
            return http.send(request, HttpResponse.BodyHandlers.discarding()).statusCode() == 200;
        } catch (IOException e) {
            // Not listening yet.
            return false;
        }
    }

    /** All that it has written so far. */
    public String log() {
        try {
            return Files.readString(log.toPath());
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    public URI address() {
        return address;
    }

    /** Of its process. */
    public long id() {
        return process.pid();
    }

    public boolean isAlive() {
        return process.isAlive();
    }

    /** SIGKILL, as a crash would end it. */
    public void kill() {
        process.destroyForcibly().onExit().join();
    }

    @Override
    public void close() {
        process.destroy();
        process.onExit().join();
    }
}
