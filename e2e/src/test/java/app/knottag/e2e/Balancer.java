package app.knottag.e2e;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.io.UncheckedIOException;
import java.net.InetAddress;
import java.net.ServerSocket;
import java.net.Socket;
import java.util.List;
import java.util.concurrent.atomic.AtomicInteger;

/** Hands connections to servers by turns, and past one that does not take them. */
final class Balancer implements AutoCloseable {

    private final ServerSocket door = new ServerSocket(0, 200, InetAddress.getLoopbackAddress());
    private final List<Integer> servers;
    private final AtomicInteger turn = new AtomicInteger();
    final List<AtomicInteger> taken;

    Balancer(List<Integer> servers) throws IOException {
        this.servers = servers;
        taken = servers.stream().map(s -> new AtomicInteger()).toList();
        begin(this::open);
    }

    String url() {
        return "http://127.0.0.1:" + door.getLocalPort();
    }

    private static void begin(Runnable work) {
        var thread = new Thread(work, "balancer");
        thread.setDaemon(true);
        thread.start();
    }

    private void open() {
        while (!door.isClosed()) {
            try {
                var from = door.accept();
                begin(() -> hand(from));
            } catch (IOException e) {
                if (!door.isClosed()) throw new UncheckedIOException(e);
            }
        }
    }

    private void hand(Socket from) {
        int first = turn.getAndIncrement();
        for (int n = 0; n < servers.size(); n++) {
            int server = (first + n) % servers.size();
            try {
                var to = new Socket(InetAddress.getLoopbackAddress(), servers.get(server));
                taken.get(server).incrementAndGet();
                begin(() -> pour(from, to));
                pour(to, from);
                return;
            } catch (IOException refused) {
                // That server is down: the next one's turn.
                continue;
            }
        }
        shut(from);
    }

    /** Whatever ends one side ends the other. */
    private static void pour(Socket from, Socket to) {
        try (InputStream in = from.getInputStream();
                OutputStream out = to.getOutputStream()) {
            in.transferTo(out);
        } catch (IOException ended) {
            shut(from);
        } finally {
            shut(to);
        }
    }

    private static void shut(Socket socket) {
        try {
            socket.close();
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Override
    public void close() throws IOException {
        door.close();
    }
}
