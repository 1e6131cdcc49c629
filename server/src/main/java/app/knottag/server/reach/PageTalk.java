package app.knottag.server.reach;

import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.Heard;
import app.knottag.core.reach.Heard.Ending;
import app.knottag.core.reach.Probes.Call;
import java.io.ByteArrayOutputStream;
import java.io.DataInputStream;
import java.io.DataOutputStream;
import java.io.IOException;
import java.net.HttpURLConnection;
import java.net.InetSocketAddress;
import java.net.Proxy;
import java.net.URI;
import java.nio.charset.StandardCharsets;
import java.util.List;
import javax.net.ssl.HttpsURLConnection;

/** Asks for a page, or for the state of a printer; redirects are told and not followed. */
final class PageTalk {

    private static final int MILLIS = (int) Talks.PATIENCE.toMillis();

    private PageTalk() {}

    static Heard hear(InetSocketAddress at, Call call, boolean ownGround) throws IOException {
        boolean secure = call.protocol() == Protocol.HTTPS;
        String path =
                call.protocol() == Protocol.IPP ? "/ipp/print" : call.ask().startsWith("/") ? call.ask() : "/";
        // Put together as text: resolving a path could lead to another host.
        var url = URI.create((secure ? "https" : "http") + "://"
                        + at.getAddress().getHostAddress() + ":" + at.getPort() + path)
                .toURL();
        var http = (HttpURLConnection) url.openConnection(Proxy.NO_PROXY);
        var certificates = new Certificates();
        if (http instanceof HttpsURLConnection https) {
            https.setSSLSocketFactory(certificates.sockets());
            https.setHostnameVerifier((name, session) -> true); // judged by Certificates
        }
        http.setConnectTimeout(Talks.CONNECT_MILLIS);
        http.setReadTimeout(MILLIS);
        http.setInstanceFollowRedirects(false);
        try {
            var heard = call.protocol() == Protocol.IPP ? printer(http, call) : page(http);
            return secure ? heard.secured(certificates.until(), certificates.fault(call.host(), ownGround)) : heard;
        } finally {
            http.disconnect();
        }
    }

    private static Heard page(HttpURLConnection http) throws IOException {
        int code = http.getResponseCode();
        if (code < 0) return Heard.ended(Ending.STRANGE, "its answer");
        if (code >= 300 && code < 400)
            return Heard.answered(code, List.of(String.valueOf(http.getHeaderField("Location"))));
        var body = code >= 400 ? http.getErrorStream() : http.getInputStream();
        return Heard.answered(code, body == null ? List.of() : Talks.lines(body));
    }

    /** Get-Printer-Attributes (RFC 8011, 4.2.5), of which only the state and the status of the answer are read. */
    private static Heard printer(HttpURLConnection http, Call call) throws IOException {
        var bytes = new ByteArrayOutputStream();
        var out = new DataOutputStream(bytes);
        out.writeShort(0x0200);
        out.writeShort(0x000B);
        out.writeInt(1);
        out.writeByte(0x01);
        attribute(out, 0x47, "attributes-charset", "utf-8");
        attribute(out, 0x48, "attributes-natural-language", "en");
        attribute(out, 0x45, "printer-uri", "ipp://" + call.host() + "/ipp/print");
        out.writeByte(0x03);
        http.setRequestMethod("POST");
        http.setDoOutput(true);
        http.setRequestProperty("Content-Type", "application/ipp");
        http.getOutputStream().write(bytes.toByteArray());
        int code = http.getResponseCode();
        if (code != HttpURLConnection.HTTP_OK || !"application/ipp".equals(http.getContentType()))
            return Heard.ended(Ending.STRANGE, "its answer", "a page with " + code);
        var in = new DataInputStream(http.getInputStream());
        in.readShort();
        int status = in.readUnsignedShort();
        return Heard.answered(status < 0x0100 ? 0 : status, List.of());
    }

    private static void attribute(DataOutputStream out, int tag, String name, String value) throws IOException {
        out.writeByte(tag);
        for (String text : List.of(name, value)) {
            byte[] b = text.getBytes(StandardCharsets.US_ASCII);
            out.writeShort(b.length);
            out.write(b);
        }
    }
}
