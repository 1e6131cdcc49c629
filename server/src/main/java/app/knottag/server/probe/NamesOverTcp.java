package app.knottag.server.probe;

import java.io.DataInputStream;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.ByteBuffer;
import java.time.Duration;
import java.util.concurrent.CompletableFuture;
import org.xbill.DNS.Message;
import org.xbill.DNS.io.DefaultIoClientFactory;
import org.xbill.DNS.io.TcpIoClient;

/**
 * Carries every question for a name over TCP on a connection of its own (RFC 1035, 4.2.2). The library keeps its connections for
 * later, and one that a cut line has left half open makes the next question wait for a packet that the kernel sends again much later.
 */
final class NamesOverTcp extends DefaultIoClientFactory implements TcpIoClient {

    @Override
    public TcpIoClient createOrGetTcpClient() {
        return this;
    }

    @Override
    public CompletableFuture<byte[]> sendAndReceiveTcp(
            InetSocketAddress local, InetSocketAddress remote, Message query, byte[] data, Duration timeout) {
        try (var socket = new BoundedSocket()) {
            socket.connect(remote, (int) timeout.toMillis());
            socket.setSoTimeout((int) timeout.toMillis());
            socket.getOutputStream()
                    .write(ByteBuffer.allocate(Short.BYTES + data.length)
                            .putShort((short) data.length)
                            .put(data)
                            .array());
            var in = new DataInputStream(socket.getInputStream());
            var answer = new byte[in.readUnsignedShort()];
            in.readFully(answer);
            return CompletableFuture.completedFuture(answer);
        } catch (IOException e) {
            return CompletableFuture.failedFuture(e);
        }
    }
}
