package org.mossbank.standin.mail;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.io.Writer;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.List;
import java.util.Locale;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;
import java.util.concurrent.CopyOnWriteArrayList;
import java.util.concurrent.ExecutorService;
import java.util.concurrent.Executors;
import org.jspecify.annotations.Nullable;

/**
 * A company's mail server, played on loopback: SMTP (RFC 5321) without a secret way or names. It takes mail for everybody,
 * but for addresses that begin with {@code gone}, which it refuses for good, and {@code later}, which it takes the second
 * time.
 */
public final class MailStandIn implements AutoCloseable {
    private final ServerSocket socket;
    private final @Nullable Path folder;
    private final List<Taken> taken = new CopyOnWriteArrayList<>();
    private final Set<String> seen = ConcurrentHashMap.newKeySet();
    private final ExecutorService threads = Executors.newCachedThreadPool(r -> {
        Thread thread = new Thread(r, "mail-stand-in");
        thread.setDaemon(true);
        return thread;
    });

    private MailStandIn(ServerSocket socket, @Nullable Path folder) {
        this.socket = socket;
        this.folder = folder;
    }

    /** A letter that was taken, whole, with its headers. */
    public record Taken(String to, String content) {}

    /**
     * Starts on loopback.
     *
     * @param port   0 for any that is free
     * @param folder where letters are written, if anywhere
     */
    public static MailStandIn start(int port, @Nullable Path folder) throws IOException {
        MailStandIn server = new MailStandIn(new ServerSocket(port, 50, InetAddress.getByName("127.0.0.1")), folder);
        server.threads.execute(server::listen);
        return server;
    }

    public int port() {
        return socket.getLocalPort();
    }

    /** All letters so far to an address, oldest first. */
    public List<Taken> to(String address) {
        return taken.stream().filter(t -> t.to().equals(address)).toList();
    }

    private void listen() {
        while (!socket.isClosed()) {
            try {
                Socket client = socket.accept();
                threads.execute(() -> talk(client));
            } catch (IOException e) {
                // Closed, or whoever came has gone.
            }
        }
    }

    private void talk(Socket client) {
        try (client;
                BufferedReader in =
                        new BufferedReader(new InputStreamReader(client.getInputStream(), StandardCharsets.UTF_8));
                Writer out = new java.io.OutputStreamWriter(client.getOutputStream(), StandardCharsets.UTF_8)) {
            say(out, "220 stand-in");
            String to = "";
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                String command = line.toUpperCase(Locale.ROOT);
                if (command.startsWith("RCPT TO:")) {
                    to = line.replaceAll(".*<(.*)>.*", "$1");
                    say(out, answerTo(to));
                } else if (command.equals("DATA")) {
                    say(out, "354 go on");
                    take(to, content(in));
                    say(out, "250 taken");
                } else if (command.equals("QUIT")) {
                    say(out, "221 farewell");
                    return;
                } else {
                    say(out, "250 well");
                }
            }
        } catch (IOException e) {
            // Whoever wrote has gone.
        }
    }

    private String answerTo(String to) {
        if (to.startsWith("gone")) {
            return "550 nobody here has this name";
        }
        return to.startsWith("later") && seen.add(to) ? "451 come again" : "250 well";
    }

    private static void say(Writer out, String line) throws IOException {
        out.write(line + "\r\n");
        out.flush();
    }

    /** Up to the line with a dot alone (section 4.5.2). */
    private static String content(BufferedReader in) throws IOException {
        StringBuilder content = new StringBuilder();
        for (String line = in.readLine(); line != null && !line.equals("."); line = in.readLine()) {
            content.append(line.startsWith(".") ? line.substring(1) : line).append('\n');
        }
        return content.toString();
    }

    private void take(String to, String content) {
        taken.add(new Taken(to, content));
        if (folder != null) {
            try {
                Files.createDirectories(folder);
                String name = "%04d %s.eml".formatted(taken.size(), to.replaceAll("[^A-Za-z0-9@._-]", "_"));
                Files.writeString(folder.resolve(name), content);
            } catch (IOException e) {
                throw new UncheckedIOException(e);
            }
        }
    }

    @Override
    public void close() throws IOException {
        socket.close();
        threads.shutdownNow();
    }

    /** Arguments: the port, and the folder to write letters to. */
    public static void main(String[] arguments) throws IOException, InterruptedException {
        if (arguments.length != 2) {
            throw new IllegalArgumentException("give a port and a folder");
        }
        try (MailStandIn server = start(Integer.parseInt(arguments[0]), Path.of(arguments[1]))) {
            synchronized (server) {
                while (!server.socket.isClosed()) {
                    server.wait();
                }
            }
        }
    }
}
