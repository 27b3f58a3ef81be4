package org.mossbank.testkit;

import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.HttpCookie;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.util.Map;
import java.util.UUID;
import org.awaitility.Awaitility;
import tools.jackson.databind.JsonNode;
import tools.jackson.databind.json.JsonMapper;

/** One person's browser, without a screen: keeps cookies, sends the CSRF token. */
public final class ApiClient {
    private static final Duration LONGEST_WAIT = Duration.ofSeconds(60);
    private static final Duration BETWEEN_TRIES = Duration.ofSeconds(1);

    private static final JsonMapper MAPPER = JsonMapper.shared();
    /** Benches may wait longer for what is large. */
    private static final Duration PATIENCE = Duration.ofSeconds(Long.getLong("mossbank.patience", 60));

    private final URI base;
    private final Map<String, String> headers = new java.util.concurrent.ConcurrentHashMap<>();
    private final CookieManager cookies;
    private final HttpClient http;

    /** Each once: method, path without its query, and the sort of problem that came back. */
    private static final java.util.Set<Refused> REFUSED = java.util.concurrent.ConcurrentHashMap.newKeySet();

    /** A refusal that a test met. */
    public record Refused(String method, String path, String problem) {}

    /** All that were met so far. */
    public static java.util.Set<Refused> refused() {
        return java.util.Set.copyOf(REFUSED);
    }

    private ApiClient(URI base, CookieManager cookies) {
        this.base = base;
        this.cookies = cookies;
        this.http = HttpClient.newBuilder()
                .cookieHandler(cookies)
                .connectTimeout(PATIENCE)
                .build();
    }

    private ApiClient(URI base) {
        this(base, new CookieManager());
    }

    /** The same browser at another server of the same name: cookies know no ports. */
    public ApiClient at(URI other) {
        return new ApiClient(other, cookies);
    }

    /** Nobody, who has asked a server for nothing yet. */
    public static ApiClient stranger(URI base) {
        return new ApiClient(base);
    }

    /** Nobody, on a server. */
    public static ApiClient nobody(URI base) {
        ApiClient client = new ApiClient(base);
        client.get("/api/session");
        return client;
    }

    /**
     * Tries again where it is told to, as people do.
     *
     * @throws IllegalStateException if the sign-in is refused
     */
    public static ApiClient signedIn(URI base, String name, String password) {
        ApiClient client = nobody(base);
        Response response = Awaitility.await()
                .atMost(LONGEST_WAIT)
                .pollDelay(Duration.ZERO)
                .pollInterval(BETWEEN_TRIES)
                .until(
                        () -> client.post("/api/session", Map.of("name", name, "password", password)),
                        r -> r.status() != 503);
        if (response.status() != 200) {
            throw new IllegalStateException("sign-in as " + name + " was refused: " + response.body());
        }
        return client;
    }

    /** What came back. */
    public record Response(int status, String body, HttpResponse<byte[]> raw) {
        public JsonNode json() {
            return MAPPER.readTree(body);
        }

        /** The last part of a problem's type. */
        public String problem() {
            String type = json().path("type").asString("");
            return type.substring(type.lastIndexOf('/') + 1);
        }
    }

    public Response get(String path) {
        return send(request(path).GET());
    }

    public Response delete(String path) {
        return send(request(path).DELETE());
    }

    public Response post(String path, Object body) {
        return send(json(request(path), "POST", MAPPER.writeValueAsString(body)));
    }

    public Response put(String path, Object body) {
        return send(json(request(path), "PUT", MAPPER.writeValueAsString(body)));
    }

    /** The first server-sent events of an address, as they come. */
    public String firstEvents(String path, int count) {
        StringBuilder told = new StringBuilder();
        try (java.util.stream.Stream<String> lines = http.send(
                        request(path).GET().build(), HttpResponse.BodyHandlers.ofLines())
                .body()) {
            int seen = 0;
            for (java.util.Iterator<String> all = lines.iterator(); seen < count && all.hasNext(); ) {
                String line = all.next();
                told.append(line).append('\n');
                seen += line.isEmpty() ? 1 : 0;
            }
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
        return told.toString();
    }

    /** Any method with any text as its body. */
    public Response raw(String method, String path, String body) {
        return send(json(request(path), method, body));
    }

    private static HttpRequest.Builder json(HttpRequest.Builder builder, String method, String body) {
        return builder.header("Content-Type", "application/json")
                .method(method, HttpRequest.BodyPublishers.ofString(body));
    }

    /** Sends a zip as a form would. */
    public Response upload(String path, byte[] file) {
        return upload(path, "study.zip", file);
    }

    /** Sends a file as a form would; the server takes its form from its name. */
    public Response upload(String path, String name, byte[] file) {
        String boundary = "part" + UUID.randomUUID();
        ByteArrayOutputStream body = new ByteArrayOutputStream();
        body.writeBytes(("--" + boundary + "\r\nContent-Disposition: form-data; name=\"file\"; filename=\"" + name
                        + "\"\r\n" + "Content-Type: application/octet-stream\r\n\r\n")
                .getBytes(StandardCharsets.UTF_8));
        body.writeBytes(file);
        body.writeBytes(("\r\n--" + boundary + "--\r\n").getBytes(StandardCharsets.UTF_8));
        return send(request(path)
                .header("Content-Type", "multipart/form-data; boundary=" + boundary)
                .POST(HttpRequest.BodyPublishers.ofByteArray(body.toByteArray())));
    }

    /** Sends a header with every request from now on. */
    public void header(String name, String value) {
        headers.put(name, value);
    }

    private HttpRequest.Builder request(String path) {
        HttpRequest.Builder builder =
                HttpRequest.newBuilder(URI.create(base + path)).timeout(PATIENCE);
        headers.forEach(builder::header);
        cookie("XSRF-TOKEN").ifPresent(token -> builder.header("X-XSRF-TOKEN", token));
        return builder;
    }

    /** A cookie's value, if there is one. */
    public java.util.Optional<String> cookie(String name) {
        return cookies.getCookieStore().getCookies().stream()
                .filter(c -> c.getName().equals(name) && !c.getValue().isEmpty())
                .map(HttpCookie::getValue)
                .findFirst();
    }

    private Response send(HttpRequest.Builder builder) {
        try {
            HttpRequest request = builder.build();
            HttpResponse<byte[]> raw = http.send(request, HttpResponse.BodyHandlers.ofByteArray());
            Response response = new Response(raw.statusCode(), new String(raw.body(), StandardCharsets.UTF_8), raw);
            if (raw.headers().firstValue("Content-Type").orElse("").startsWith("application/problem+json")) {
                REFUSED.add(new Refused(request.method(), request.uri().getPath(), response.problem()));
            }
            return response;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException("interrupted", e);
        }
    }
}
