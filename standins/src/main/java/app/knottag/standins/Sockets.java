package app.knottag.standins;

import java.io.Closeable;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.ServerSocket;
import java.nio.channels.SocketChannel;
import java.util.ArrayList;
import java.util.List;

/** The open sockets of one station and the threads that listen at them. */
final class Sockets implements Closeable {

    private static final int CLOSE_MILLIS = 1_000;

    private final String owner;
    private final List<Closeable> open = new ArrayList<>();
    private final List<Thread> listening = new ArrayList<>();

    Sockets(String owner) {
        this.owner = owner;
    }

    /** Work at a socket, which ends when that is closed. */
    interface Work {
        void run() throws IOException;
    }

    <T extends Closeable> T keep(T socket) {
        open.add(socket);
        return socket;
    }

    void listen(Work work) {
        listening.add(run(work));
    }

    Thread run(Work work) {
        var thread = new Thread(
                () -> {
                    try {
                        work.run();
                    } catch (IOException closed) {
                        // Closing the socket is how a stand-in is unplugged.
                    }
                },
                owner);
        thread.setDaemon(true);
        thread.start();
        return thread;
    }

    ServerSocket server(InetSocketAddress at) throws IOException {
        var server = keep(new ServerSocket());
        server.setReuseAddress(true);
        server.bind(at);
        return server;
    }

    /** A firewall that swallows what comes: a queue that is full and never emptied answers nobody. */
    void swallow(InetSocketAddress at) throws IOException {
        var server = keep(new ServerSocket());
        server.setReuseAddress(true);
        server.bind(at, 1);
        for (int n = 0; n < 2; n++) {
            var filler = keep(SocketChannel.open());
            filler.configureBlocking(false);
            filler.connect(at);
        }
    }

    /** Returns when the addresses are free again: a blocked listener gives its socket back only as it wakes. */
    @Override
    public void close() {
        try {
            for (var socket : open) socket.close();
            for (var thread : listening) thread.join(CLOSE_MILLIS);
        } catch (IOException e) {
            System.err.println(owner + ": " + e.getMessage());
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
        }
    }
}
