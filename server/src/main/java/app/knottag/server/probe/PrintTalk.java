package app.knottag.server.probe;

import app.knottag.core.reach.Probes.Call;
import app.knottag.core.reach.ServiceReply;
import app.knottag.core.reach.ServiceReply.Ending;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.apache.hc.client5.http.classic.methods.HttpPost;
import org.apache.hc.core5.http.ClassicHttpResponse;
import org.apache.hc.core5.http.ContentType;
import org.apache.hc.core5.http.io.entity.ByteArrayEntity;

/** Asks a printer for its own state (RFC 8010, RFC 8011), at the path of its queue; where that is unknown, it asks for the queue first. */
final class PrintTalk {

    private static final int GET_PRINTER = 0x000B;

    /** Print servers with several queues tell their first one so. */
    private static final int GET_FIRST = 0x4002;

    private static final int NOT_FOUND = 0x0406;
    private static final int FIRST_VALUE = 0x10;
    private static final int END = 0x03;
    private static final int INTEGER_BYTES = 4;
    private static final String USUAL = "/ipp/print";

    private PrintTalk() {}

    /** A status with attributes, each with its values in their order. */
    private record Answer(int status, Map<String, List<byte[]>> attributes) {
        Optional<String> text(String name) {
            return attributes.getOrDefault(name, List.of()).stream()
                    .findFirst()
                    .map(b -> new String(b, StandardCharsets.UTF_8));
        }

        int number(String name) {
            byte[] b = attributes.getOrDefault(name, List.of(new byte[0])).get(0);
            int n = 0;
            if (b.length == INTEGER_BYTES) for (byte one : b) n = n << 8 | one & 0xFF;
            return b.length == 1 ? b[0] : n;
        }

        boolean fine() {
            return status < 0x0100;
        }
    }

    static ServiceReply hear(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        boolean known = call.ask().startsWith("/");
        String path = known ? call.ask() : USUAL;
        var first = ask(at, call, path, GET_PRINTER);
        if (first instanceof ServiceReply ended) return ended;
        var answer = (Answer) first;
        if (answer.status() == NOT_FOUND && !known && ask(at, call, "/", GET_FIRST) instanceof Answer found) {
            var queue = found.text("printer-uri-supported").flatMap(PrintTalk::path);
            if (queue.isPresent() && ask(at, call, queue.get(), GET_PRINTER) instanceof Answer there) {
                path = queue.get();
                answer = there;
            }
        }
        if (!answer.fine() || !answer.attributes().containsKey("printer-state"))
            return ServiceReply.answered(answer.fine() ? 0 : answer.status(), List.of(path));
        var reasons = answer.attributes().getOrDefault("printer-state-reasons", List.of()).stream()
                .map(b -> new String(b, StandardCharsets.US_ASCII))
                .filter(r -> !r.equals("none"))
                .toList();
        return ServiceReply.answered(0, List.of(path))
                .telling(new ServiceReply.Printer(
                        answer.number("printer-state"),
                        reasons,
                        !answer.attributes().containsKey("printer-is-accepting-jobs")
                                || answer.number("printer-is-accepting-jobs") != 0));
    }

    private static Optional<String> path(String uri) {
        try {
            return Optional.ofNullable(URI.create(uri).getRawPath()).filter(p -> p.startsWith("/"));
        } catch (IllegalArgumentException odd) {
            return Optional.empty();
        }
    }

    /** Returns an {@link Answer}, or how it ended without one. */
    private static Object ask(InetSocketAddress at, Call call, String path, int operation) throws IOException {
        var request = new HttpPost("http://" + call.host() + ":" + at.getPort() + path);
        request.setEntity(new ByteArrayEntity(question(call, path, operation), ContentType.create("application/ipp")));
        var got = new ArrayList<Answer>();
        var heard = PageTalk.send(at, request, new Certificates(), answer -> {
            if (!printing(answer))
                return ServiceReply.ended(Ending.STRANGE, "its answer", "a page with " + answer.getCode());
            got.add(read(new DataInputStream(
                    new BoundedSocket.Bounded(answer.getEntity().getContent()))));
            return ServiceReply.answered(0, List.of());
        });
        return got.isEmpty() ? heard : got.get(0);
    }

    private static boolean printing(ClassicHttpResponse answer) {
        return answer.getCode() == 200
                && answer.getEntity() != null
                && String.valueOf(answer.getEntity().getContentType()).startsWith("application/ipp");
    }

    private static byte[] question(Call call, String path, int operation) throws IOException {
        var bytes = new ByteArrayOutputStream();
        var out = new DataOutputStream(bytes);
        out.writeShort(0x0200);
        out.writeShort(operation);
        out.writeInt(1);
        out.writeByte(0x01);
        attribute(out, 0x47, "attributes-charset", "utf-8");
        attribute(out, 0x48, "attributes-natural-language", "en");
        if (operation == GET_PRINTER) attribute(out, 0x45, "printer-uri", "ipp://" + call.host() + path);
        else {
            attribute(out, 0x21, "limit", new byte[] {0, 0, 0, 1});
            attribute(out, 0x44, "requested-attributes", "printer-uri-supported");
        }
        out.writeByte(END);
        return bytes.toByteArray();
    }

    private static void attribute(DataOutputStream out, int tag, String name, String value) throws IOException {
        attribute(out, tag, name, value.getBytes(StandardCharsets.US_ASCII));
    }

    private static void attribute(DataOutputStream out, int tag, String name, byte[] value) throws IOException {
        out.writeByte(tag);
        for (byte[] part : List.of(name.getBytes(StandardCharsets.US_ASCII), value)) {
            out.writeShort(part.length);
            out.write(part);
        }
    }

    /** Reads one answer (RFC 8010, 3.1): a value without a name is one more of the attribute before it. */
    private static Answer read(DataInputStream in) throws IOException {
        in.readUnsignedShort();
        int status = in.readUnsignedShort();
        in.readInt();
        var attributes = new HashMap<String, List<byte[]>>();
        String name = "";
        for (int tag = in.read(); tag >= 0 && tag != END; tag = in.read()) {
            if (tag < FIRST_VALUE) continue;
            String own = new String(in.readNBytes(in.readUnsignedShort()), StandardCharsets.US_ASCII);
            if (!own.isEmpty()) name = own;
            attributes.computeIfAbsent(name, n -> new ArrayList<>()).add(in.readNBytes(in.readUnsignedShort()));
        }
        return new Answer(status, attributes);
    }
}
