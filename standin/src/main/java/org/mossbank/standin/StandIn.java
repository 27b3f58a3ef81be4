package org.mossbank.standin;

import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.io.OutputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.util.Arrays;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CountDownLatch;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicInteger;
import tools.jackson.core.JacksonException;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/**
 * Outside model services, played on loopback: {@code POST /quillwort}, {@code /brindle}, {@code /tansy}. The header {@code
 * X-Pass} must hold the pass. {@code ?fault=} asks for a {@link Fault}; {@code ?hurry=N} makes everything N times as fast.
 */
public final class StandIn implements AutoCloseable {
    private static final int MOST_BYTES = 4 << 20;
    private static final int SLOWER = 8;
    private static final String REFUSAL = "I would rather not answer this.";

    private final HttpServer server;
    private final ExecutorService threads = Executors.newCachedThreadPool(r -> {
        Thread thread = new Thread(r, "stand-in");
        thread.setDaemon(true);
        return thread;
    });
    private final CannedAnswers canned;
    private final String pass;
    private final CountDownLatch closed = new CountDownLatch(1);
    private final CountDownLatch held = new CountDownLatch(1);
    private final Map<String, AtomicInteger> asked = new ConcurrentHashMap<>();

    private StandIn(HttpServer server, CannedAnswers canned, String pass) {
        this.server = server;
        this.canned = canned;
        this.pass = pass;
    }

    /**
     * Starts on loopback.
     *
     * @param port    0 for any that is free
     * @param studies folders of studies whose answers it gives
     * @param pass    what requests must bring
     */
    public static StandIn start(int port, List<Path> studies, String pass) throws IOException {
        HttpServer server = HttpServer.create(new InetSocketAddress(InetAddress.getByName("127.0.0.1"), port), 0);
        StandIn standIn = new StandIn(server, CannedAnswers.of(studies), pass);
        Service.ALL.forEach(s -> server.createContext("/" + s.name(), exchange -> standIn.handle(s, exchange)));
        server.setExecutor(standIn.threads);
        server.start();
        return standIn;
    }

    public int port() {
        return server.getAddress().getPort();
    }

    /** Requests that a service has had. */
    public int asked(String service) {
        return asked.getOrDefault(service, new AtomicInteger()).get();
    }

    /** Goes on with what {@link Fault#HOLD} held. */
    public void letGo() {
        held.countDown();
    }

    @Override
    public void close() {
        closed.countDown();
        held.countDown();
        server.stop(0);
        threads.shutdownNow();
    }

    private void handle(Service service, HttpExchange exchange) throws IOException {
        try (exchange) {
            int before = asked.computeIfAbsent(service.name(), s -> new AtomicInteger())
                    .getAndIncrement();
            Map<String, String> query = query(exchange);
            Optional<Fault> fault = Fault.named(query.getOrDefault("fault", ""));
            new Answering(service, exchange, fault, Integer.parseInt(query.getOrDefault("hurry", "1")), before).run();
        } catch (IOException e) {
            // Whoever asked has gone.
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }

    private static Map<String, String> query(HttpExchange exchange) {
        String query = exchange.getRequestURI().getQuery();
        Map<String, String> values = new ConcurrentHashMap<>();
        if (query != null) {
            Arrays.stream(query.split("&"))
                    .map(p -> p.split("=", 2))
                    .forEach(p -> values.put(p[0], p.length > 1 ? p[1] : ""));
        }
        return values;
    }

    private final class Answering {
        private final Service service;
        private final HttpExchange exchange;
        private final Optional<Fault> fault;
        private final int hurry;
        private final int before;

        Answering(Service service, HttpExchange exchange, Optional<Fault> fault, int hurry, int before) {
            this.service = service;
            this.exchange = exchange;
            this.fault = fault;
            this.hurry = hurry;
            this.before = before;
        }

        private boolean is(Fault one) {
            return fault.filter(f -> f == one).isPresent();
        }

        void run() throws IOException, InterruptedException {
            byte[] sent = exchange.getRequestBody().readNBytes(MOST_BYTES);
            String given = String.valueOf(exchange.getRequestHeaders().getFirst("X-Pass"));
            if (!given.equals(pass) || is(Fault.DENIED)) {
                send(401, "{\"fault\": \"no such pass\"}");
            } else if (is(Fault.TELLTALE)) {
                send(400, "{\"fault\": \"the pass " + given + " is not for this\"}");
            } else if (is(Fault.BUSY) || is(Fault.BUSY_ONCE) && before == 0) {
                exchange.getResponseHeaders().set("Retry-After", "1");
                send(429, "{\"fault\": \"too many at once\"}");
            } else if (is(Fault.ERROR)) {
                send(500, "{\"fault\": \"something broke\"}");
            } else if (is(Fault.REDIRECT)) {
                exchange.getResponseHeaders().set("Location", "http://127.0.0.1:1/elsewhere");
                send(307, "");
            } else {
                answer(sent);
            }
        }

        private void answer(byte[] sent) throws IOException, InterruptedException {
            JsonNode body;
            try {
                body = JsonMapper.shared().readTree(sent);
            } catch (JacksonException e) {
                send(400, "{\"fault\": \"no JSON\"}");
                return;
            }
            if (is(Fault.HANG)) {
                closed.await();
                return;
            }
            String words = service.asked(body);
            String text = is(Fault.REFUSAL) ? REFUSAL : said(body, words);
            String ended = is(Fault.REFUSAL) ? "declined" : is(Fault.LIMIT) ? "length" : "done";
            pause(service.firstOutputMs());
            if (service.wire().isEvents()) {
                stream(words, text, ended);
            } else {
                pause((int) (Service.tokens(text) * 1000 / service.tokensASecond()));
                String document = service.document(words, text, ended, version());
                send(
                        200,
                        is(Fault.MALFORMED) || is(Fault.HALF)
                                ? document.substring(0, document.length() / 2)
                                : document);
            }
        }

        private int version() {
            return is(Fault.NEWER) && before > 0 ? 2 : 1;
        }

        private String said(JsonNode body, String words) throws IOException {
            long turns = service.turns(body);
            return turns > 1
                    ? "That is right, and it changes this much: what I said before holds for what follows, too. (Reply "
                            + turns + ".)\n"
                    : canned.to(words, service.name(), service.attempt(body));
        }

        private void stream(String words, String text, String ended) throws IOException, InterruptedException {
            exchange.getResponseHeaders().set("Content-Type", "text/event-stream");
            exchange.sendResponseHeaders(200, 0);
            try (OutputStream out = exchange.getResponseBody()) {
                List<String> events = service.events(text);
                int until = is(Fault.HALF) ? (events.size() + 1) / 2 : events.size();
                for (String event : events.subList(0, until)) {
                    event(out, event);
                    if (is(Fault.HOLD)) {
                        held.await();
                    }
                    pause(event.length() * 250 / service.tokensASecond());
                }
                if (is(Fault.MALFORMED)) {
                    event(out, "{\"more\": ");
                }
                if (!is(Fault.HALF)) {
                    for (String event : service.lastEvents(words, text, ended, version())) {
                        event(out, event);
                    }
                }
            }
        }

        private void event(OutputStream out, String data) throws IOException {
            out.write(("data: " + data + "\n\n").getBytes(StandardCharsets.UTF_8));
            out.flush();
        }

        private void pause(int ms) throws InterruptedException, IOException {
            long time = (long) ms * (is(Fault.SLOW) ? SLOWER : 1) / hurry;
            if (closed.await(time, TimeUnit.MILLISECONDS)) {
                throw new IOException("the stand-in has ended");
            }
        }

        private void send(int status, String text) throws IOException {
            byte[] bytes = text.getBytes(StandardCharsets.UTF_8);
            exchange.getResponseHeaders().set("Content-Type", "application/json");
            exchange.sendResponseHeaders(status, bytes.length == 0 ? -1 : bytes.length);
            if (bytes.length > 0) {
                exchange.getResponseBody().write(bytes);
            }
        }
    }

    /** Arguments: the port, then folders of studies. The pass comes from the environment, STANDIN_PASS. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        String pass = System.getenv().getOrDefault("STANDIN_PASS", "");
        if (arguments.length < 2 || pass.isEmpty()) {
            throw new IllegalArgumentException("give a port and the folder of a study, and a pass in STANDIN_PASS");
        }
        List<Path> studies = Arrays.stream(arguments).skip(1).map(Path::of).toList();
        try (StandIn standIn = start(Integer.parseInt(arguments[0]), studies, pass)) {
            standIn.closed.await();
        }
    }
}
