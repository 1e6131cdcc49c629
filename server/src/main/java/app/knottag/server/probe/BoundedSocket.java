package app.knottag.server.probe;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;
import java.net.InetAddress;
import java.net.Socket;
import java.net.SocketTimeoutException;
import java.time.Duration;
import javax.net.SocketFactory;

/** A socket that hears so much and for so long and no more: who drips or floods is cut off. */
final class BoundedSocket extends Socket {

    private static final int MOST_BYTES = 65_536;
    private static final Duration LONGEST = Duration.ofSeconds(8);

    private InputStream bounded;

    /** Makes such sockets for libraries that open their own. */
    static final class Factory extends SocketFactory {
        @Override
        public Socket createSocket() {
            return new BoundedSocket();
        }

        @Override
        public Socket createSocket(String host, int port) {
            throw new UnsupportedOperationException("connect it yourself");
        }

        @Override
        public Socket createSocket(String host, int port, InetAddress local, int localPort) {
            return createSocket(host, port);
        }

        @Override
        public Socket createSocket(InetAddress host, int port) {
            return createSocket(host.getHostAddress(), port);
        }

        @Override
        public Socket createSocket(InetAddress host, int port, InetAddress local, int localPort) {
            return createSocket(host, port);
        }
    }

    @Override
    public synchronized InputStream getInputStream() throws IOException {
        if (bounded == null) bounded = new Bounded(super.getInputStream());
        return bounded;
    }

    /** Ends like a connection that stays silent. */
    static final class Bounded extends FilterInputStream {

        private final long end = System.nanoTime() + LONGEST.toNanos();
        private int left = MOST_BYTES;

        Bounded(InputStream in) {
            super(in);
        }

        private int counted(int read) throws IOException {
            left -= Math.max(read, 0);
            if (left <= 0) throw new IOException("more than " + MOST_BYTES + " bytes");
            if (System.nanoTime() > end) throw new SocketTimeoutException("longer than " + LONGEST);
            return read;
        }

        @Override
        public int read() throws IOException {
            int b = super.read();
            counted(b < 0 ? 0 : 1);
            return b;
        }

        @Override
        public int read(byte[] bytes, int from, int length) throws IOException {
            return counted(super.read(bytes, from, length));
        }
    }
}
