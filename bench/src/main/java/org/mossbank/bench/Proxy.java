package org.mossbank.bench;

import java.io.IOException;
import java.io.InputStream;
import java.net.ServerSocket;
import java.net.URI;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.attribute.PosixFilePermissions;
import java.security.GeneralSecurityException;
import java.security.KeyStore;
import java.security.cert.CertificateFactory;
import java.util.List;
import java.util.concurrent.TimeUnit;
import java.util.stream.Collectors;
import javax.net.ssl.SSLContext;
import javax.net.ssl.TrustManagerFactory;
import org.awaitility.Awaitility;

/** nginx with TLS before servers, by the site that ships with the product; only names, ports and certificate are put in. */
final class Proxy implements AutoCloseable {
    private static final long MOST_SECONDS = 30;

    private final Path root;
    private final Path folder;
    private final int port;
    private final Process nginx;

    private Proxy(Path root, Path folder, int port, List<URI> servers) throws IOException {
        this.root = root;
        this.folder = folder;
        this.port = port;
        write(servers);
        this.nginx = nginx().start();
        Awaitility.await().until(this::listens);
    }

    /** From now on this process trusts its certificate, and no other. */
    static Proxy before(Path root, List<URI> servers) throws Exception {
        Path folder = Files.createTempDirectory("proxy");
        // Whoever nginx works as, where it is started by root, keeps what is large in folders below it.
        Files.setPosixFilePermissions(folder, PosixFilePermissions.fromString("rwx--x--x"));
        run(List.of(
                "openssl",
                "req",
                "-x509",
                "-newkey",
                "rsa:2048",
                "-nodes",
                "-days",
                "2",
                "-subj",
                "/CN=127.0.0.1",
                "-addext",
                "subjectAltName=IP:127.0.0.1",
                "-keyout",
                folder.resolve("key").toString(),
                "-out",
                folder.resolve("certificate").toString()));
        trust(folder.resolve("certificate"));
        return new Proxy(root, folder, freePort(), servers);
    }

    private static int freePort() throws IOException {
        try (ServerSocket free = new ServerSocket(0)) {
            return free.getLocalPort();
        }
    }

    URI address() {
        return URI.create("https://127.0.0.1:" + port);
    }

    /** Goes on with other servers; what is under way is not disturbed. */
    void servers(List<URI> now) throws Exception {
        write(now);
        run(List.of("nginx", "-c", folder.resolve("nginx.conf").toString(), "-s", "reload"));
    }

    private void write(List<URI> servers) throws IOException {
        String site = Files.readString(root.resolve("packaging/nginx.conf"))
                .replaceAll("(?m)^    server 127\\.0\\.0\\.1:\\d+ (.*)$\\n", "")
                .replace(
                        "upstream mossbank {\n",
                        servers.stream()
                                .map(s -> "    server 127.0.0.1:" + s.getPort() + " max_fails=1 fail_timeout=2s;\n")
                                .collect(Collectors.joining("", "upstream mossbank {\n", "")))
                .replace("listen 80;", "listen 127.0.0.1:" + (port + 1) + ";")
                .replace("listen 443 ", "listen 127.0.0.1:" + port + " ")
                .replace("mossbank.example", "127.0.0.1")
                .replace(
                        "/etc/ssl/certs/mossbank.pem",
                        folder.resolve("certificate").toString())
                .replace("/etc/ssl/private/mossbank.key", folder.resolve("key").toString());
        Files.writeString(folder.resolve("nginx.conf"), """
                daemon off;
                pid %1$s/pid;
                error_log %1$s/error.log;
                events { worker_connections 2048; }
                http {
                access_log off;
                client_body_temp_path %1$s/body;
                proxy_temp_path %1$s/proxy;
                fastcgi_temp_path %1$s/fastcgi;
                uwsgi_temp_path %1$s/uwsgi;
                scgi_temp_path %1$s/scgi;
                %2$s
                }
                """.formatted(folder, site));
    }

    private ProcessBuilder nginx() {
        return new ProcessBuilder("nginx", "-c", folder.resolve("nginx.conf").toString())
                .redirectErrorStream(true)
                .redirectOutput(folder.resolve("said").toFile());
    }

    private boolean listens() throws IOException {
        if (!nginx.isAlive()) {
            throw new IllegalStateException(Files.readString(folder.resolve("said")));
        }
        try (java.net.Socket socket = new java.net.Socket("127.0.0.1", port)) {
            return socket.isConnected();
        } catch (IOException e) {
            return false;
        }
    }

    private static void trust(Path certificate) throws GeneralSecurityException, IOException {
        KeyStore known = KeyStore.getInstance(KeyStore.getDefaultType());
        known.load(null, null);
        try (InputStream in = Files.newInputStream(certificate)) {
            known.setCertificateEntry(
                    "proxy", CertificateFactory.getInstance("X.509").generateCertificate(in));
        }
        TrustManagerFactory trust = TrustManagerFactory.getInstance(TrustManagerFactory.getDefaultAlgorithm());
        trust.init(known);
        SSLContext context = SSLContext.getInstance("TLS");
        context.init(null, trust.getTrustManagers(), null);
        SSLContext.setDefault(context);
    }

    private static void run(List<String> command) throws IOException, InterruptedException {
        Process process = new ProcessBuilder(command)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        if (!process.waitFor(MOST_SECONDS, TimeUnit.SECONDS) || process.exitValue() != 0) {
            throw new IllegalStateException(command.get(0) + " failed");
        }
    }

    @Override
    public void close() {
        nginx.destroy();
        nginx.onExit().join();
    }
}
