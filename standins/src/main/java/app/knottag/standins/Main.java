package app.knottag.standins;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Fault;
import com.sun.net.httpserver.HttpExchange;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.BindException;
import java.net.InetSocketAddress;
import java.nio.charset.StandardCharsets;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.util.Map;
import tools.jackson.core.JacksonException;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Starts the stand-ins on the first free 127.A.0.0/16 and prints where their control is. */
public final class Main {

    private static final int CONTROL_PORT = 10_060;
    private static final int PORTAL_PORT = 10_080;
    private static final int FIRST_GROUP = 40;
    private static final int LAST_GROUP = 250;

    private Main() {}

    /**
     * Runs until it is killed.
     *
     * @param args the file that the devices' state is kept in
     */
    public static void main(String[] args) throws IOException {
        for (int group = FIRST_GROUP; group <= LAST_GROUP; group++) {
            try {
                var server = HttpServer.create(new InetSocketAddress("127." + group + ".0.1", CONTROL_PORT), 16);
                var kept = Path.of(args[0]);
                var portal = HttpServer.create(new InetSocketAddress("127." + group + ".0.2", PORTAL_PORT), 16);
                portal.createContext("/", new Portal(kept.resolveSibling("portal.json"), Clock.systemUTC()));
                portal.start();
                var bench = new Bench(group, kept);
                GearAgent.serve(
                        bench,
                        bench.loopback(Ipv4Address.parse("10.44.16.1")),
                        bench.loopback(Ipv4Address.parse("10.44.16.2")));
                serve(server, bench);
                System.out.println("KNOT control http://127." + group + ".0.1:" + CONTROL_PORT);
                return;
            } catch (BindException taken) {
                // Another demo lives there; the next one may be free.
            }
        }
        System.err.println("No free loopback network from 127." + FIRST_GROUP + " to 127." + LAST_GROUP
                + ". Stop another demo first.");
        System.exit(1);
    }

    private static void serve(HttpServer server, Bench bench) {
        var json = new JsonMapper();
        server.createContext("/neighbours", exchange -> answer(exchange, 200, bench.neighbours()));
        server.createContext("/barred", exchange -> answer(exchange, 200, bench.barred()));
        server.createContext("/holders", exchange -> answer(exchange, 200, bench.holders()));
        server.createContext("/away", exchange -> answer(exchange, 200, bench.away()));
        server.createContext("/clock", exchange -> {
            bench.back(Duration.parse(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8)));
            answer(exchange, 200, bench.time().toString());
        });
        server.createContext("/dhcp/leases", exchange -> answer(exchange, 200, bench.leases()));
        server.createContext("/dhcp/reservations", exchange -> {
            try {
                if (exchange.getRequestMethod().equals("PUT"))
                    bench.reserve(new String(exchange.getRequestBody().readAllBytes(), StandardCharsets.UTF_8));
                answer(exchange, 200, bench.reservations());
            } catch (IllegalArgumentException e) {
                answer(exchange, 422, e.getMessage());
            }
        });
        server.createContext("/devices", exchange -> {
            try {
                String[] path = exchange.getRequestURI().getPath().split("/");
                String what = exchange.getRequestMethod() + " " + (path.length > 3 ? path[3] : "list");
                switch (what) {
                    case "GET list" -> {}
                    case "PUT menu" -> {
                        var typed = json.readValue(
                                exchange.getRequestBody().readAllBytes(), new TypeReference<Map<String, String>>() {});
                        bench.change(path[2], device -> device.type(typed));
                    }
                    case "POST restart" -> bench.change(path[2], device -> device.restart(bench.time()));
                    case "PUT faults", "DELETE faults" -> {
                        var fault = Fault.valueOf(path[4]);
                        bench.change(path[2], device -> device.upset(fault, what.startsWith("PUT")));
                    }
                    default -> throw new IllegalArgumentException("The bench cannot do that: " + what);
                }
                answer(exchange, 200, json.writeValueAsString(bench.faces()));
            } catch (IllegalArgumentException | JacksonException e) {
                answer(exchange, 422, e.getMessage());
            } catch (BindException e) {
                answer(exchange, 500, "A loopback address is taken by another program: " + e.getMessage());
            }
        });
        server.start();
    }

    private static void answer(HttpExchange exchange, int status, String text) throws IOException {
        byte[] body = text.getBytes(StandardCharsets.UTF_8);
        exchange.sendResponseHeaders(status, body.length);
        exchange.getResponseBody().write(body);
        exchange.close();
    }
}
