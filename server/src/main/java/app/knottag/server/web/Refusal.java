package app.knottag.server.web;

import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import tools.jackson.databind.json.JsonMapper;

/** Problem details (RFC 9457) where no controller is reached: in filters, in the container, at the door. */
public final class Refusal {

    private static final JsonMapper JSON = new JsonMapper();

    private Refusal() {}

    /** Writes a refusal, unless an answer has begun already. */
    public static void write(HttpServletResponse response, HttpStatus status, String code, String detail)
            throws IOException {
        if (response.isCommitted()) return;
        response.resetBuffer();
        response.setStatus(status.value());
        response.setContentType(MediaType.APPLICATION_PROBLEM_JSON_VALUE);
        response.setHeader("Cache-Control", "no-store");
        response.getOutputStream().write(text(status, code, detail).getBytes(StandardCharsets.UTF_8));
        response.flushBuffer();
    }

    /** Returns a refusal as JSON. */
    static String text(HttpStatus status, String code, String detail) {
        var node = JSON.createObjectNode();
        node.put("type", "about:blank");
        node.put("status", status.value()).put("title", status.getReasonPhrase());
        node.put("code", code).put("detail", detail);
        node.putArray("errors");
        return JSON.writeValueAsString(node);
    }
}
