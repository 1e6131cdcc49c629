package app.knottag.server.web;

import java.io.IOException;
import org.apache.catalina.connector.Request;
import org.apache.catalina.connector.Response;
import org.apache.catalina.valves.ErrorReportValve;
import org.springframework.http.HttpStatus;

/** What the container itself refuses, such as a request that is no HTTP, is a problem too and not a page of its own. */
public class PlainErrors extends ErrorReportValve {

    @Override
    protected void report(Request request, Response response, Throwable thrown) {
        if (response.getStatus() < 400 || response.getContentWritten() > 0 || !response.setErrorReported()) return;
        var status = HttpStatus.resolve(response.getStatus());
        try {
            Refusal.write(
                    response.getResponse(),
                    status == null ? HttpStatus.BAD_REQUEST : status,
                    "http-" + response.getStatus(),
                    "This request cannot be read. Reload the page and try again.");
            response.finishResponse();
        } catch (IOException e) {
            container.getLogger().debug("The caller has gone", e);
        }
    }
}
