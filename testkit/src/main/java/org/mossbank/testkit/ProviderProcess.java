package org.mossbank.testkit;

import java.io.File;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.CookieManager;
import java.net.ServerSocket;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Duration;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import org.awaitility.Awaitility;

/** The stand-in for a company's own sign-in, as a program of its own, and somebody's browser at it. */
public final class ProviderProcess implements AutoCloseable {
    /** What Mossbank brings when it asks. */
    public static final String SECRET = "a reed bends";

    private static final String PASSWORD = "tide and lantern";
    private static final Pattern FORM_TOKEN = Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"");
    private static final Duration START_PATIENCE = Duration.ofMinutes(2);

    private final Process process;
    private final URI address;

    private ProviderProcess(Process process, URI address) {
        this.process = process;
        this.address = address;
    }

    /** A port at which a provider may listen later. */
    public static int freePort() {
        try (ServerSocket socket = new ServerSocket(0)) {
            return socket.getLocalPort();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** @param root the folder of the project */
    public static ProviderProcess start(Path root, int port) {
        Path standin = root.resolve("standin/target");
        File log = standin.resolve("provider-" + port + ".log").toFile();
        ProcessBuilder builder = new ProcessBuilder(
                        "java",
                        "-XX:TieredStopAtLevel=1",
                        "-XX:+UseSerialGC",
                        "-Xmx192m",
                        "-cp",
                        standin.resolve("classes") + File.pathSeparator + standin.resolve("lib") + "/*",
                        "org.mossbank.standin.provider.ProviderStandIn",
                        String.valueOf(port))
                .redirectErrorStream(true)
                .redirectOutput(log);
        builder.environment().put("PROVIDER_SECRET", SECRET);
        try {
            ProviderProcess provider = new ProviderProcess(builder.start(), URI.create("http://127.0.0.1:" + port));
            Runtime.getRuntime().addShutdownHook(new Thread(provider::close));
            Awaitility.await().atMost(START_PATIENCE).until(provider::answers);
            return provider;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    private boolean answers() {
        if (!process.isAlive()) {
            throw new IllegalStateException("the provider has ended by itself");
        }
        try {
            HttpRequest discovery = HttpRequest.newBuilder(address.resolve("/.well-known/openid-configuration"))
                    .build();
            return HttpClient.newHttpClient()
                            .send(discovery, HttpResponse.BodyHandlers.discarding())
                            .statusCode()
                    == 200;
        } catch (IOException e) {
            return false;
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            return false;
        }
    }

    /** From now on something is wrong with what it says, until another fault, or none, is asked for. */
    public void fault(String named) {
        Browser browser = new Browser();
        browser.send(HttpRequest.newBuilder(address.resolve("/fault?named=" + named))
                .POST(HttpRequest.BodyPublishers.noBody()));
    }

    /**
     * Signs somebody in at the provider.
     *
     * @param there where Mossbank sent the browser
     * @return where the provider sends it back to
     */
    public URI signIn(URI there, String name) {
        Browser browser = new Browser();
        URI login = browser.redirected(there);
        Matcher token =
                FORM_TOKEN.matcher(browser.send(HttpRequest.newBuilder(login)).body());
        if (!token.find()) {
            throw new IllegalStateException("the provider shows no form");
        }
        String form =
                "username=" + encoded(name) + "&password=" + encoded(PASSWORD) + "&_csrf=" + encoded(token.group(1));
        HttpResponse<String> entered = browser.send(HttpRequest.newBuilder(address.resolve("/login"))
                .header("Content-Type", "application/x-www-form-urlencoded")
                .POST(HttpRequest.BodyPublishers.ofString(form)));
        return browser.redirected(location(entered));
    }

    private static String encoded(String text) {
        return URLEncoder.encode(text, StandardCharsets.UTF_8);
    }

    private URI location(HttpResponse<?> response) {
        return address.resolve(response.headers()
                .firstValue("Location")
                .orElseThrow(() -> new IllegalStateException("the provider answers " + response.statusCode())));
    }

    @Override
    public void close() {
        process.destroyForcibly();
    }

    private final class Browser {
        private final HttpClient http =
                HttpClient.newBuilder().cookieHandler(new CookieManager()).build();

        HttpResponse<String> send(HttpRequest.Builder request) {
            try {
                return http.send(request.header("Accept", "text/html").build(), HttpResponse.BodyHandlers.ofString());
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            } catch (InterruptedException e) {
                Thread.currentThread().interrupt();
                throw new IllegalStateException(e);
            }
        }

        /** Where a page sends the browser on to. */
        URI redirected(URI page) {
            return location(send(HttpRequest.newBuilder(page)));
        }
    }
}
