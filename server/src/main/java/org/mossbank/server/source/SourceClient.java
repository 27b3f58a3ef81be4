package org.mossbank.server.source;

import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.UnknownHostException;
import java.nio.charset.StandardCharsets;
import java.time.Clock;
import java.time.DateTimeException;
import java.time.Duration;
import java.time.ZonedDateTime;
import java.time.format.DateTimeFormatter;
import java.util.List;
import java.util.Set;
import java.util.concurrent.Executors;
import java.util.concurrent.ScheduledExecutorService;
import java.util.concurrent.ScheduledFuture;
import java.util.concurrent.TimeUnit;
import java.util.concurrent.atomic.AtomicBoolean;
import org.apache.hc.client5.http.ConnectTimeoutException;
import org.apache.hc.client5.http.DnsResolver;
import org.apache.hc.client5.http.HttpHostConnectException;
import org.apache.hc.client5.http.classic.methods.HttpUriRequestBase;
import org.apache.hc.client5.http.config.ConnectionConfig;
import org.apache.hc.client5.http.config.RequestConfig;
import org.apache.hc.client5.http.impl.classic.CloseableHttpClient;
import org.apache.hc.client5.http.impl.classic.HttpClients;
import org.apache.hc.client5.http.impl.io.PoolingHttpClientConnectionManagerBuilder;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.Header;
import org.apache.hc.core5.http.io.entity.StringEntity;
import org.apache.hc.core5.util.Timeout;
import org.jspecify.annotations.Nullable;
import org.springframework.beans.factory.DisposableBean;
import org.springframework.stereotype.Component;

/**
 * Sends one request to a source and reads what comes. Each connection goes to an address that was checked when it was looked
 * up for that connection, so that a name cannot mean one address to the check and another to the request. Redirects are not
 * followed: they would carry headers with secrets to another place.
 */
@Component
class SourceClient implements DisposableBean {
    /** What a model calls itself; what is beyond is cut. */
    private static final int LONGEST_NAME = 100;

    private static final int CONNECT_SECONDS = 10;
    private static final int MOST_CONNECTIONS = 200;
    private static final int TOLD_OF_A_FAULT = 300;
    /** Far more than is told, so that what is told is cut from a text in which secrets were hidden. */
    private static final int MOST_BYTES_OF_A_FAULT = 64 << 10;

    private static final Set<Integer> WORTH_A_RETRY = Set.of(408, 425, 429, 500, 502, 503, 504);

    private final AllowedAddresses allowed;
    private final Secrets secrets;
    private final HostLookup lookup;
    private final Clock clock;
    private final CloseableHttpClient client;
    private final ScheduledExecutorService watch = Executors.newSingleThreadScheduledExecutor(r -> {
        Thread thread = new Thread(r, "source-limits");
        thread.setDaemon(true);
        return thread;
    });

    SourceClient(AllowedAddresses allowed, Secrets secrets, HostLookup lookup, Clock clock) {
        this.allowed = allowed;
        this.secrets = secrets;
        this.lookup = lookup;
        this.clock = clock;
        this.client = HttpClients.custom()
                .setConnectionManager(PoolingHttpClientConnectionManagerBuilder.create()
                        .setDnsResolver(new CheckedResolver())
                        .setMaxConnTotal(MOST_CONNECTIONS)
                        .setMaxConnPerRoute(MOST_CONNECTIONS)
                        .setDefaultConnectionConfig(ConnectionConfig.custom()
                                .setConnectTimeout(Timeout.ofSeconds(CONNECT_SECONDS))
                                .build())
                        .build())
                .setConnectionReuseStrategy((request, response, context) -> false)
                .disableRedirectHandling()
                .disableAutomaticRetries()
                .disableCookieManagement()
                .disableAuthCaching()
                .disableContentCompression()
                .setUserAgent("Mossbank")
                .build();
    }

    /** Looks up names; a bean of its own so that a test can let a name change its meaning. */
    interface HostLookup {
        InetAddress[] lookUp(String host) throws UnknownHostException;
    }

    /** A name that means only what must not be reached. */
    private static final class Forbidden extends UnknownHostException {
        private static final long serialVersionUID = 1L;

        Forbidden(String host) {
            super("The address that " + host + " means is none that this server's administrator allows.");
        }
    }

    private final class CheckedResolver implements DnsResolver {
        @Override
        public InetAddress[] resolve(String host) throws UnknownHostException {
            throw new UnknownHostException("a port must be known to check " + host);
        }

        @Override
        public List<InetSocketAddress> resolve(String host, int port) throws UnknownHostException {
            List<InetAddress> reachable = allowed.reachable(host, List.of(lookup.lookUp(host)), port);
            if (reachable.isEmpty()) {
                throw new Forbidden(host);
            }
            return reachable.stream().map(a -> new InetSocketAddress(a, port)).toList();
        }

        @Override
        public String resolveCanonicalHostname(String host) {
            return host;
        }
    }

    /** Ends a request from another thread. */
    static final class Cancel {
        private volatile @Nullable HttpUriRequestBase request;
        private volatile boolean asked;

        /** May come before the request does. */
        void cancel() {
            asked = true;
            HttpUriRequestBase current = request;
            if (current != null) {
                current.cancel();
            }
        }

        private void watches(HttpUriRequestBase current) {
            request = current;
            if (asked) {
                current.cancel();
            }
        }
    }

    /** Never throws for what a service does: that is in the reply. */
    Reply ask(SourceContent source, List<Turn> turns, int attempt, Reply.Progress progress, Cancel cancel) {
        return allowed.fault(source.url())
                .map(why -> Reply.turnedAway(0, "The source's address " + why + ".", false, null))
                .orElseGet(() -> new Exchange(source, progress, cancel).run(turns, attempt));
    }

    private final class Exchange {
        private final SourceContent source;
        private final Cancel cancel;
        private final long begun = System.nanoTime();
        private final AtomicBoolean outOfTime = new AtomicBoolean();
        private final ReplyReader reader;

        Exchange(SourceContent source, Reply.Progress progress, Cancel cancel) {
            this.source = source;
            this.cancel = cancel;
            this.reader =
                    new ReplyReader(source, this::elapsedMs, (text, ms) -> progress.came(secrets.hideSoFar(text), ms));
        }

        private long elapsedMs() {
            return TimeUnit.NANOSECONDS.toMillis(System.nanoTime() - begun);
        }

        Reply run(List<Turn> turns, int attempt) {
            HttpUriRequestBase request;
            try {
                request = request(turns, attempt);
            } catch (IllegalStateException | IllegalArgumentException e) {
                return Reply.turnedAway(elapsedMs(), "It could not be asked: " + e.getMessage() + ".", false, null);
            }
            cancel.watches(request);
            ScheduledFuture<?> limit = watch.schedule(
                    () -> {
                        outOfTime.set(true);
                        request.cancel();
                    },
                    source.timeLimitMs(),
                    TimeUnit.MILLISECONDS);
            try {
                return withoutSecrets(client.execute(request, this::reply));
            } catch (IOException | RuntimeException e) {
                return withoutSecrets(failed(e));
            } finally {
                limit.cancel(false);
            }
        }

        private HttpUriRequestBase request(List<Turn> turns, int attempt) {
            HttpUriRequestBase request = new HttpUriRequestBase(source.method().name(), URI.create(source.url()));
            source.headers().forEach(h -> request.setHeader(h.name(), secrets.fill(source.url(), h.value())));
            String body = BodyTemplate.of(source).fill(turns, attempt, source.mostOutputTokens());
            request.setEntity(new StringEntity(body, ContentType.APPLICATION_JSON));
            request.setConfig(RequestConfig.custom()
                    .setResponseTimeout(Timeout.ofMilliseconds(source.timeLimitMs()))
                    .setConnectionRequestTimeout(Timeout.ofMilliseconds(source.timeLimitMs()))
                    .build());
            return request;
        }

        private Reply reply(ClassicHttpResponse response) throws IOException {
            int status = response.getCode();
            if (status >= 200 && status < 300) {
                try (InputStream in = response.getEntity() == null
                        ? InputStream.nullInputStream()
                        : response.getEntity().getContent()) {
                    reader.read(in);
                }
                return reader.reply(elapsedMs());
            }
            if (status >= 300 && status < 400) {
                return Reply.turnedAway(
                        elapsedMs(), "It answered with a redirect, which is not followed.", false, null);
            }
            return Reply.turnedAway(
                    elapsedMs(),
                    "It answered " + status + told(response),
                    WORTH_A_RETRY.contains(status),
                    retryAfter(response.getFirstHeader("Retry-After")));
        }

        private String told(ClassicHttpResponse response) throws IOException {
            if (response.getEntity() == null) {
                return ".";
            }
            try (InputStream in = response.getEntity().getContent()) {
                String text = secrets.hide(new String(in.readNBytes(MOST_BYTES_OF_A_FAULT), StandardCharsets.UTF_8))
                        .replaceAll("[\\p{Cntrl}\\s]+", " ")
                        .strip();
                return text.isEmpty()
                        ? "."
                        : ": " + (text.length() > TOLD_OF_A_FAULT ? text.substring(0, TOLD_OF_A_FAULT) + "…" : text);
            }
        }

        private Reply failed(Exception e) {
            long total = elapsedMs();
            boolean came = !reader.came().text().isEmpty();
            if (outOfTime.get()
                    || e instanceof java.net.SocketTimeoutException && !(e instanceof ConnectTimeoutException)) {
                return Reply.broken(
                        Reply.Ending.TIMED_OUT,
                        reader.came(),
                        total,
                        "It took longer than "
                                + Duration.ofMillis(source.timeLimitMs()).toSeconds() + " s.");
            }
            if (cancel.asked) {
                return Reply.broken(Reply.Ending.INCOMPLETE, reader.came(), total, "It was cut off.");
            }
            if (e instanceof Forbidden) {
                return Reply.turnedAway(total, String.valueOf(e.getMessage()), false, null);
            }
            if (e instanceof UnknownHostException) {
                return Reply.turnedAway(total, "Its name could not be found.", true, null);
            }
            if (e instanceof HttpHostConnectException || e instanceof ConnectTimeoutException) {
                return Reply.turnedAway(total, "It could not be reached.", true, null);
            }
            Reply.Ending ending = came ? Reply.Ending.INCOMPLETE : Reply.Ending.FAILED;
            String reason = e instanceof ReplyReader.Unreadable
                    ? String.valueOf(e.getMessage())
                    : came ? "It stopped half way." : "The connection broke before anything came.";
            return Reply.broken(ending, reader.came(), total, reason);
        }

        /** On one line, no longer than a name is, and one: several are told apart by semicolons. Cut last, or half a secret would be left. */
        private static String named(String told) {
            String plain = told.replaceAll("[\\p{Cntrl}\\p{Cf}\\s;]+", " ").strip();
            return plain.substring(0, Math.min(plain.length(), LONGEST_NAME));
        }

        private Reply withoutSecrets(Reply reply) {
            return new Reply(
                    reply.ending(),
                    secrets.hide(reply.text()).replace("\0", "\uFFFD"),
                    reply.firstOutputMs(),
                    reply.totalMs(),
                    reply.inputTokens(),
                    reply.outputTokens(),
                    reply.model() == null ? null : named(secrets.hide(reply.model())),
                    secrets.hide(reply.reason()),
                    reply.free(),
                    reply.retry(),
                    reply.retryAfter());
        }
    }

    /** Seconds, or a date: RFC 9110, section 10.2.3. */
    private @Nullable Duration retryAfter(@Nullable Header header) {
        if (header == null) {
            return null;
        }
        String value = header.getValue().strip();
        if (value.matches("\\d{1,6}")) {
            return Duration.ofSeconds(Long.parseLong(value));
        }
        try {
            Duration until = Duration.between(
                    clock.instant(),
                    ZonedDateTime.parse(value, DateTimeFormatter.RFC_1123_DATE_TIME)
                            .toInstant());
            return until.isNegative() ? Duration.ZERO : until;
        } catch (DateTimeException e) {
            return null;
        }
    }

    @Override
    public void destroy() throws IOException {
        watch.shutdownNow();
        client.close();
    }
}
