package app.knottag.server.probe;

import app.knottag.server.web.Problem;
import java.io.IOException;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.time.Duration;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;

/** The bench panel's line to the stand-ins of the demo; not there unless the application was started as the demo. */
@Component
public class StandIns {

    /** Stand-ins that are gone refuse at once; those that are there may be slow on a busy machine. */
    private static final Duration PATIENCE = Duration.ofSeconds(20);

    private final String control;
    private final HttpClient http =
            HttpClient.newBuilder().connectTimeout(PATIENCE).build();

    StandIns(@Value("${knot.demo.control:}") String control) {
        this.control = control;
    }

    public boolean active() {
        return !control.isEmpty();
    }

    public int secondGroup() {
        return Integer.parseInt(URI.create(control).getHost().split("\\.")[1]);
    }

    public String get(String path) {
        return send("GET", path, "");
    }

    public String send(String verb, String path, String body) {
        if (!active()) throw Problem.notFound("The bench panel is only there in the demo.");
        var request = HttpRequest.newBuilder(URI.create(control + path))
                .timeout(PATIENCE)
                .method(verb, HttpRequest.BodyPublishers.ofString(body))
                .build();
        try {
            var response = http.send(request, HttpResponse.BodyHandlers.ofString());
            if (response.statusCode() >= 400)
                throw Problem.of(HttpStatus.UNPROCESSABLE_CONTENT, "stand-in-refused", response.body());
            return response.body();
        } catch (IOException e) {
            throw Problem.of(
                    HttpStatus.SERVICE_UNAVAILABLE,
                    "stand-ins-gone",
                    "The stand-ins do not answer. Start the demo again.");
        } catch (InterruptedException e) {
            Thread.currentThread().interrupt();
            throw new IllegalStateException(e);
        }
    }
}
