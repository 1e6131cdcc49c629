package app.knottag.server.machine;

import com.sun.net.httpserver.HttpExchange;
import com.zaxxer.hikari.HikariDataSource;
import io.micrometer.core.instrument.Gauge;
import io.micrometer.core.instrument.MeterRegistry;
import io.micrometer.core.instrument.Timer;
import io.micrometer.core.instrument.binder.MeterBinder;
import io.micrometer.core.instrument.binder.jvm.JvmGcMetrics;
import io.micrometer.core.instrument.binder.jvm.JvmMemoryMetrics;
import io.micrometer.core.instrument.binder.jvm.JvmThreadMetrics;
import io.micrometer.core.instrument.binder.logging.LogbackMetrics;
import io.micrometer.core.instrument.binder.system.ProcessorMetrics;
import io.micrometer.core.instrument.binder.system.UptimeMetrics;
import io.micrometer.prometheusmetrics.PrometheusConfig;
import io.micrometer.prometheusmetrics.PrometheusMeterRegistry;
import io.prometheus.metrics.exporter.httpserver.HTTPServer;
import jakarta.servlet.FilterChain;
import jakarta.servlet.ServletException;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import java.util.function.Supplier;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.autoconfigure.condition.ConditionalOnProperty;
import org.springframework.core.Ordered;
import org.springframework.core.annotation.Order;
import org.springframework.dao.DataAccessException;
import org.springframework.stereotype.Component;
import org.springframework.web.filter.OncePerRequestFilter;
import org.springframework.web.servlet.HandlerMapping;

/**
 * What a monitor reads, at a port of its own where nobody signs in: numbers alone, of routes as they are described, never of
 * what somebody asked for. It is there when it was asked for, and costs nothing otherwise.
 */
@Component
@ConditionalOnProperty("knot.metrics.port")
@Order(Ordered.HIGHEST_PRECEDENCE)
class Metrics extends OncePerRequestFilter {

    private static final Logger LOG = LoggerFactory.getLogger(Metrics.class);

    private static final Duration[] BOUNDS = {
        Duration.ofMillis(20),
        Duration.ofMillis(50),
        Duration.ofMillis(150),
        Duration.ofMillis(500),
        Duration.ofSeconds(2)
    };

    private final PrometheusMeterRegistry registry = new PrometheusMeterRegistry(PrometheusConfig.DEFAULT);
    private final JvmGcMetrics collections = new JvmGcMetrics();
    private final LogbackMetrics logged = new LogbackMetrics();
    private final MachineWatch machine;
    private final HTTPServer server;

    Metrics(
            @Value("${knot.metrics.address:127.0.0.1}") String address,
            @Value("${knot.metrics.port}") int port,
            MachineWatch machine,
            HikariDataSource pool,
            List<MeterBinder> others)
            throws IOException {
        this.machine = machine;
        List.of(
                        new JvmMemoryMetrics(),
                        collections,
                        new JvmThreadMetrics(),
                        new ProcessorMetrics(),
                        new UptimeMetrics(),
                        logged)
                .forEach(b -> b.bindTo(registry));
        others.forEach(b -> b.bindTo(registry));
        pool.setMetricRegistry(registry);
        gauge("knot.disk.free", "Bytes free where the records lie", machine::room);
        gauge(
                "knot.concerns",
                "What Today says that the machine needs",
                () -> Optional.of(machine.concerns().size()));
        gauge(
                "knot.backup.last",
                "When the last backup was made",
                () -> machine.lastBackup().map(Instant::getEpochSecond));
        server = HTTPServer.builder()
                .hostname(address)
                .port(port)
                .registry(registry.getPrometheusRegistry())
                .defaultHandler(this::health)
                .buildAndStart();
        LOG.info("Numbers for a monitor are at {}:{}/metrics", address, server.getPort());
    }

    int port() {
        return server.getPort();
    }

    /** What cannot be told now is no number. */
    private void gauge(String name, String says, Supplier<Optional<? extends Number>> value) {
        Gauge.builder(name, () -> {
                    try {
                        return value.get().map(Number::doubleValue).orElse(Double.NaN);
                    } catch (DataAccessException e) {
                        LOG.debug("{} cannot be told while the base is away", name);
                        return Double.NaN;
                    }
                })
                .description(says)
                .register(registry);
    }

    /** Whether server and database stand: 200 or 503. Anything else asked for is not there. */
    private void health(HttpExchange asked) throws IOException {
        boolean there = asked.getRequestURI().getPath().equals("/health");
        boolean stands = there && stands();
        byte[] said = (there ? "{\"stands\":" + stands + "}" : "Ask for /metrics or /health.\n")
                .getBytes(StandardCharsets.UTF_8);
        asked.getResponseHeaders().set("Content-Type", there ? "application/json" : "text/plain");
        asked.sendResponseHeaders(there ? stands ? 200 : 503 : 404, said.length);
        try (var body = asked.getResponseBody()) {
            body.write(said);
        }
    }

    private boolean stands() {
        try {
            return machine.stands();
        } catch (DataAccessException e) {
            LOG.debug("The base is away", e);
            return false;
        }
    }

    @Override
    protected void doFilterInternal(HttpServletRequest request, HttpServletResponse response, FilterChain chain)
            throws ServletException, IOException {
        var begun = Timer.start(registry);
        try {
            chain.doFilter(request, response);
        } finally {
            // A stream lasts as long as somebody listens.
            if (!request.isAsyncStarted()) begun.stop(timer(request, response, registry));
        }
    }

    private static Timer timer(HttpServletRequest request, HttpServletResponse response, MeterRegistry registry) {
        return Timer.builder("http.server.requests")
                .description("Requests answered, by route and outcome")
                .tag(
                        "method",
                        request.getMethod().matches("GET|HEAD|POST|PUT|PATCH|DELETE") ? request.getMethod() : "other")
                .tag(
                        "route",
                        Optional.ofNullable(request.getAttribute(HandlerMapping.BEST_MATCHING_PATTERN_ATTRIBUTE))
                                .map(Object::toString)
                                .orElse("none"))
                .tag("status", "" + response.getStatus())
                .serviceLevelObjectives(BOUNDS)
                .register(registry);
    }

    @Override
    public void destroy() {
        server.close();
        collections.close();
        logged.close();
        registry.close();
    }
}
