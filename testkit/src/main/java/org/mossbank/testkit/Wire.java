package org.mossbank.testkit;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.net.URI;
import java.util.Set;
import java.util.concurrent.ConcurrentHashMap;

/**
 * What connects a browser with a server, or a server with its database, and can be cut: nothing comes through then, whoever
 * asks.
 */
public final class Wire implements AutoCloseable {
    private static final int MOST_WAITING = 50;

    private final URI server;
    private final ServerSocket socket;
    private final Set<Socket> open = ConcurrentHashMap.newKeySet();
    private volatile boolean cut;
    private volatile boolean losesAnswers;

    private Wire(URI server, ServerSocket socket) {
        this.server = server;
        this.socket = socket;
    }

    /** @param server where all that comes is passed on to */
    public static Wire to(URI server) {
        try {
            Wire wire = new Wire(server, new ServerSocket(0, MOST_WAITING, InetAddress.getLoopbackAddress()));
            start(wire::accept);
            return wire;
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    /** Where a browser finds the server through this. */
    public URI address() {
        return URI.create("http://127.0.0.1:" + socket.getLocalPort());
    }

    public void cut() {
        cut = true;
        open.forEach(Wire::end);
    }

    public void mend() {
        cut = false;
        losesAnswers = false;
    }

    /** From now on what is asked arrives, and no answer comes back. */
    public void loseAnswers() {
        losesAnswers = true;
    }

    private void accept() {
        while (!socket.isClosed()) {
            try {
                connect(socket.accept());
            } catch (IOException e) {
                // One connection that failed, or the end of all.
            }
        }
    }

    private void connect(Socket near) throws IOException {
        open.add(near);
        if (cut) {
            end(near);
            return;
        }
        Socket far;
        try {
            far = new Socket(server.getHost(), server.getPort());
        } catch (IOException e) {
            end(near);
            throw e;
        }
        open.add(far);
        start(() -> pass(near, far, false));
        start(() -> pass(far, near, true));
    }

    private void pass(Socket from, Socket to, boolean isAnswer) {
        try (InputStream in = from.getInputStream();
                OutputStream out = to.getOutputStream()) {
            byte[] part = new byte[1 << 14];
            for (int n = in.read(part); n >= 0; n = in.read(part)) {
                if (isAnswer && losesAnswers) {
                    return;
                }
                out.write(part, 0, n);
            }
        } catch (IOException e) {
            // One side has gone; so goes the other.
        } finally {
            end(from);
            end(to);
            open.remove(from);
            open.remove(to);
        }
    }

    private static void end(Socket socket) {
        try {
            socket.close();
        } catch (IOException e) {
            // It is closed already.
        }
    }

    private static void start(Runnable work) {
        Thread thread = new Thread(work, "wire");
        thread.setDaemon(true);
        thread.start();
    }

    @Override
    public void close() throws IOException {
        socket.close();
        cut();
    }
}
