package app.knottag.standins;

import app.knottag.core.reach.Outcome;
import app.knottag.core.reach.SiteModel.Station;
import com.sun.net.httpserver.HttpServer;
import com.sun.net.httpserver.HttpsConfigurator;
import com.sun.net.httpserver.HttpsServer;
import java.io.Closeable;
import java.io.IOException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.util.Optional;
import java.util.concurrent.Executors;
import javax.net.ssl.SSLContext;

/** The page of a device: its own path says who it is, every other one that there is nothing. */
final class PageServer {

    private PageServer() {}

    static Closeable start(InetSocketAddress at, Station station, Outcome service, Optional<SSLContext> tls)
            throws IOException {
        HttpServer server = tls.isPresent() ? HttpsServer.create(at, 8) : HttpServer.create(at, 8);
        if (server instanceof HttpsServer https) https.setHttpsConfigurator(new HttpsConfigurator(tls.get()));
        var threads = Executors.newCachedThreadPool(r -> {
            var thread = new Thread(r, station.id());
            thread.setDaemon(true);
            return thread;
        });
        server.setExecutor(threads);
        server.createContext("/", exchange -> {
            if (service == Outcome.NONE) {
                exchange.close();
                return;
            }
            boolean known = exchange.getRequestURI().getPath().equals(station.ask());
            boolean in = service != Outcome.BARRED;
            String said = station.says().isEmpty() ? station.name() : station.says();
            byte[] body = (in ? said : "Not from there").getBytes(StandardCharsets.UTF_8);
            exchange.sendResponseHeaders(!in ? 403 : known ? 200 : 404, body.length);
            exchange.getResponseBody().write(body);
            exchange.close();
        });
        server.start();
        return () -> {
            server.stop(0);
            threads.shutdownNow();
        };
    }
}
