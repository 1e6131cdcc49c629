package app.knottag.standins;

import java.io.DataInputStream;
import java.io.IOException;
import java.io.OutputStream;
import java.net.Socket;
import java.nio.ByteBuffer;
import java.nio.ByteOrder;
import java.nio.charset.StandardCharsets;
import java.time.Instant;

/** Shared folders as far as agreeing upon a dialect ([MS-SMB2] 2.2.4); nobody can sign in. */
final class FileServer {

    private static final int HEADER = 64;
    private static final int BODY = 64;
    private static final int DIALECT = 0x0210;
    private static final long EPOCH_1601_SECONDS = 11_644_473_600L;

    private FileServer() {}

    static void agree(Socket socket, Instant time) throws IOException {
        var in = new DataInputStream(socket.getInputStream());
        OutputStream out = socket.getOutputStream();
        while (true) {
            int length = in.readInt() & 0xFFFFFF;
            byte[] asked = in.readNBytes(Math.min(length, 4_096));
            var answer = ByteBuffer.allocate(4 + HEADER + BODY).order(ByteOrder.LITTLE_ENDIAN);
            answer.put(new byte[] {0, 0, 0, (byte) (HEADER + BODY)});
            answer.put((byte) 0xFE).put("SMB".getBytes(StandardCharsets.US_ASCII));
            answer.putShort((short) HEADER).putShort((short) 0).putInt(0);
            answer.putShort((short) 0).putShort((short) 1).putInt(1).putInt(0);
            // Old callers begin with the first version of the protocol, which has no number of the message.
            answer.putLong(
                    asked.length >= 32 && asked[0] == (byte) 0xFE
                            ? ByteBuffer.wrap(asked)
                                    .order(ByteOrder.LITTLE_ENDIAN)
                                    .getLong(24)
                            : 0);
            answer.putInt(0).putInt(0).putLong(0).putLong(0).putLong(0);
            answer.putShort((short) 65)
                    .putShort((short) 1)
                    .putShort((short) DIALECT)
                    .putShort((short) 0);
            answer.putLong(0x4B6E6F74L).putLong(0x546167L);
            answer.putInt(0).putInt(65_536).putInt(65_536).putInt(65_536);
            answer.putLong((time.getEpochSecond() + EPOCH_1601_SECONDS) * 10_000_000L)
                    .putLong(0);
            answer.putShort((short) (HEADER + BODY)).putShort((short) 0).putInt(0);
            out.write(answer.array());
            out.flush();
        }
    }
}
