package app.knottag.server;

import static org.mockito.ArgumentMatchers.any;
import static org.mockito.ArgumentMatchers.anyInt;
import static org.mockito.ArgumentMatchers.eq;
import static org.mockito.Mockito.mock;
import static org.mockito.Mockito.reset;
import static org.mockito.Mockito.when;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.gear.GearProbe;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Form;
import app.knottag.core.intake.Recognised;
import app.knottag.core.kind.Protocol;
import app.knottag.core.reach.Here;
import app.knottag.core.reach.Neighbour;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.ServiceReply;
import app.knottag.core.reach.Swept;
import app.knottag.core.reach.Whois;
import app.knottag.server.account.Invitations;
import app.knottag.server.account.Role;
import app.knottag.server.probe.MailRelay;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.SQLException;
import java.time.Duration;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.concurrent.atomic.AtomicInteger;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.builder.SpringApplicationBuilder;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.boot.web.server.context.WebServerApplicationContext;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;
import org.springframework.context.annotation.Primary;

/** The real application on real PostgreSQL, started once for all tests; only the network probes are faked. */
public final class Running {

    public static final String PASSWORD = "long enough 42";
    public static final Probes PROBES = mock(Probes.class);
    public static final GearProbe GEAR = mock(GearProbe.class);
    public static final MailRelay RELAY = mock(MailRelay.class);
    /** The folder into which lists of registries are dropped. */
    public static final Path LISTS = folder();

    private static final AtomicInteger COUNT = new AtomicInteger();
    private static final ConfigurableApplicationContext APP = start();

    private Running() {}

    private static Path folder() {
        try {
            return Files.createTempDirectory("knot-lists");
        } catch (IOException e) {
            throw new UncheckedIOException(e);
        }
    }

    @Configuration
    public static class FakedNetwork {
        @Bean
        @Primary
        Probes fakedProbes() {
            return PROBES;
        }

        @Bean
        @Primary
        GearProbe fakedGear() {
            return GEAR;
        }

        @Bean
        @Primary
        MailRelay fakedRelay() {
            return RELAY;
        }

        @Bean
        CostTest.Questions questions() {
            return new CostTest.Questions();
        }
    }

    /** A network on which one endpoint of 10.7.0.0/24 answers with a MAC, and says something at its service. */
    public static void network(String at, String mac, String says) {
        reset(PROBES);
        var address = Ipv4Address.parse(at);
        when(PROBES.here())
                .thenReturn(new Here(List.of(
                        new Here.Link("lan0", Ipv4Address.parse("10.7.0.250"), Ipv4Prefix.parse("10.7.0.0/24")))));
        when(PROBES.echo(any())).thenAnswer(c -> echo(c.getArgument(0), Recognised.Answer.ANSWERED));
        when(PROBES.whois(any())).thenReturn(new Whois(Set.of(), Whois.How.ASKED));
        when(PROBES.whois(address)).thenReturn(new Whois(Set.of(Mac.parse(mac)), Whois.How.ASKED));
        when(PROBES.sweep(any(), any()))
                .thenReturn(
                        new Swept(Map.of(address, Set.of(Mac.parse(mac))), Set.of(), "by the question for its MAC"));
        when(PROBES.neighbours()).thenReturn(List.of(new Neighbour(address, Mac.parse(mac))));
        when(PROBES.connect(any(), anyInt())).thenReturn(Probes.Connection.OPEN);
        when(PROBES.ask(eq(address), anyInt(), any())).thenReturn(Optional.of(says));
        when(PROBES.talk(any())).thenAnswer(call -> {
            Probes.Call c = call.getArgument(0);
            boolean page = c.protocol() == Protocol.HTTP || c.protocol() == Protocol.HTTPS;
            return ServiceReply.answered(page ? 200 : 0, List.of(says));
        });
    }

    public static Recognised.Echo echo(Ipv4Address address, Recognised.Answer answer) {
        return new Recognised.Echo(Form.ECHO, Optional.ofNullable(address), answer, -1, Optional.empty(), Set.of());
    }

    private static ConfigurableApplicationContext start() {
        if (System.getenv("KNOT_DB_URL") == null)
            throw new IllegalStateException("These tests need a database. Run them with: ./knot test server");
        when(PROBES.here()).thenReturn(new Here(List.of()));
        var app = server();
        for (Role role : Role.values())
            app.getBean(Invitations.class).add(role.name().toLowerCase(Locale.ROOT), role, PASSWORD);
        return app;
    }

    private static ConfigurableApplicationContext server() {
        return new SpringApplicationBuilder(App.class, FakedNetwork.class)
                .run(
                        "--server.port=0",
                        "--spring.main.allow-bean-definition-overriding=false",
                        "--knot.night.questions-a-second=10000",
                        "--knot.night.look-every=86400000",
                        "--knot.backups=true",
                        "--knot.metrics.port=0",
                        "--knot.page=https://knot.example.test",
                        "--knot.data=" + LISTS,
                        "--knot.lists.folder=" + LISTS);
    }

    /** One more server on the same database, until it is closed. */
    public static final class Second implements AutoCloseable {

        private final ConfigurableApplicationContext app = server();

        public String url() {
            return Running.url(app);
        }

        public <T> T bean(Class<T> type) {
            return app.getBean(type);
        }

        @Override
        public void close() {
            app.close();
        }
    }

    /** Lets everything that waits for the start of the server run once more, as after a restart. */
    public static void readyAgain() {
        APP.publishEvent(
                new ApplicationReadyEvent(new SpringApplication(App.class), new String[0], APP, Duration.ZERO));
    }

    public static <T> T bean(Class<T> type) {
        return APP.getBean(type);
    }

    public static String url() {
        return url(APP);
    }

    private static String url(ConfigurableApplicationContext app) {
        return "http://127.0.0.1:"
                + ((WebServerApplicationContext) app).getWebServer().getPort();
    }

    /** A browser in which nobody is signed in. */
    public static Api stranger() {
        var api = new Api(url());
        api.get("/api/welcome").expect(200);
        return api;
    }

    /** Lets somebody new in by a link, as a lead and a colleague do. */
    public static void join(String name, Role role, String password) {
        String path = as(Role.LEAD)
                .post("/api/invitations", "{'role':'%s'}", role)
                .expect(201)
                .json()
                .get("path")
                .asString();
        stranger()
                .post(
                        "/api/invitations/acceptance",
                        "{'token':'%s','name':'%s','password':'%s'}",
                        path.replace("/join/", ""),
                        name,
                        password)
                .expect(204);
    }

    /** Someone who has signed in. */
    public static Api as(Role role) {
        var api = new Api(url());
        api.get("/api/welcome");
        api.post("/api/session", "{'name':'%s','password':'%s'}", role.name().toLowerCase(Locale.ROOT), PASSWORD)
                .expect(200);
        return api;
    }

    /** A site of its own with one /24, gateway 1, pool 100 to 199 and tills at 50 + n; returns {site, segment}. */
    public static long[] site(Api lead) {
        int n = COUNT.incrementAndGet();
        String code = "T" + (char) ('A' + n / 26) + (char) ('A' + n % 26);
        long site = lead.post("/api/sites", "{'name':'Site %s','code':'%s','zone':'Europe/Berlin'}", n, code)
                .expect(201)
                .json()
                .get("id")
                .asLong();
        long segment = lead.post("/api/sites/" + site + "/segments", """
                {'name':'Shop','prefix':'10.7.0.0/24','gateway':'10.7.0.1','resolvers':['10.7.0.1','203.0.113.9'],
                'pools':[{'from':'10.7.0.100','to':'10.7.0.199'}],
                 'seriesName':'Till','seriesHostBase':50,'seriesPortBase':7450}""")
                .expect(201)
                .json()
                .get("id")
                .asLong();
        return new long[] {site, segment};
    }

    /** Adds a payment terminal for one of up to 75 tills, with label, and returns its id. */
    public static long till(Api api, long[] site, int number) {
        return api.post(
                        "/api/sites/" + site[0] + "/endpoints",
                        """
                {'segmentId':%d,'kind':'counter-payment-terminal','number':%d,'name':'Till \
                %d','address':'10.7.0.%d','mac':'00:00:5E:00:53:%02X','serial':'OC2-AAAA-%04d',
                 'partnerName':'Till %d workstation','partnerAddress':'10.7.0.%d','partnerTestPort':7500}""",
                        site[1],
                        number,
                        number,
                        50 + number,
                        number,
                        number,
                        number,
                        number <= 20 ? 30 + number : 180 + number)
                .expect(201)
                .json()
                .get("id")
                .asLong();
    }

    /** Changes what is on record behind everybody's back. */
    public static void write(String sql) throws SQLException {
        try (var db = database("knot_owner");
                var change = db.createStatement()) {
            change.executeUpdate(sql);
        }
    }

    public static Connection database(String user) throws SQLException {
        String password = System.getenv(user.equals("knot_owner") ? "KNOT_DB_OWNER_PASSWORD" : "KNOT_DB_APP_PASSWORD");
        return DriverManager.getConnection(System.getenv("KNOT_DB_URL"), user, password);
    }
}
