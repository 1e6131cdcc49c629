package app.knottag.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Listing;
import app.knottag.core.register.HandOver;
import app.knottag.core.register.RegistryEntry;
import app.knottag.core.register.RegistryFile;
import app.knottag.core.register.RegistryForm;
import app.knottag.core.register.RegistryReader;
import com.sun.net.httpserver.HttpServer;
import java.io.IOException;
import java.net.CookieManager;
import java.net.InetSocketAddress;
import java.net.URI;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.file.Path;
import java.time.Clock;
import java.time.Duration;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The portal and the DHCP server of the demo, fed from and checked against what is exported. */
class RegistriesTest {

    private static final Instant NOW = Instant.parse("2026-11-25T12:00:00Z");

    @TempDir
    private Path folder;

    private static String exported(String... texts) {
        var entries = List.of(texts).stream()
                .map(t -> t.split(" "))
                .map(p -> RegistryEntry.of(p[0], Optional.of(Mac.parse(p[1])), Optional.of(Ipv4Address.parse(p[2]))))
                .toList();
        return RegistryFile.write(
                RegistryForm.HOST_BLOCKS,
                new RegistryFile.Head("Barn", "Router", "barn.internal", NOW, false),
                HandOver.between(List.of(), entries));
    }

    @Test
    void anExportedReservationIsReadBackAndGivesItsAddress() throws IOException {
        var bench = new Bench(215, folder.resolve("kept.json"));
        assertThat(screen(bench, "till-4")).isEqualTo("Address 10.44.16.131");
        bench.reserve(exported("pgb-pay4 00:00:5E:00:53:2B 10.44.16.54", "pgb-pay5 00:00:5E:00:53:3D 10.44.16.55"));
        assertThat(screen(bench, "till-4")).isEqualTo("Address 10.44.16.54");
        var read = RegistryReader.read(RegistryForm.HOST_BLOCKS, bench.reservations());
        assertThat(read.entries().stream().map(r -> r.entry().name())).containsExactly("pgb-pay4", "pgb-pay5");
        // Its leases are read as any lease list is.
        assertThat(Listing.read(bench.leases(), java.time.Instant.now()).drafts().stream()
                        .filter(d -> d.name().equals("till-4"))
                        .map(d -> d.address().orElseThrow() + " " + d.mac().orElseThrow()))
                .containsExactly("10.44.16.54 00:00:5E:00:53:2B");
        // A refused file changes nothing, and the good one is there after a new start.
        assertThatThrownBy(() -> bench.reserve("host x { }")).hasMessage("Line 1: x lacks its MAC or its address.");
        assertThat(new Bench(216, folder.resolve("kept.json")).reservations()).contains("pgb-pay5");
    }

    @Test
    void aLeaseIsWrittenAsTheServersDo() throws IOException {
        var station = GardenCentre.devices().stream()
                .map(GardenCentre.Made::station)
                .filter(s -> s.id().equals("till-4"))
                .toList();
        assertThat(new DhcpFiles(folder.resolve("none.conf")).leases(station, NOW))
                .endsWith("""
                lease 10.44.16.131 {
                  starts 3 2026/11/25 12:00:00;
                  ends 4 2026/11/26 00:00:00;
                  binding state active;
                  hardware ethernet 00:00:5e:00:53:2b;
                  client-hostname "till-4";
                }
                """);
    }

    private static String screen(Bench bench, String id) {
        return bench.faces().stream()
                .filter(f -> f.id().equals(id))
                .findFirst()
                .orElseThrow()
                .screen();
    }

    @DisplayName("A reservation file with a slip is refused with its line")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "host a { hardware ethernet 00:00:5e:00:53:4g; fixed-address 10.1.1.1; } | Line 1: not a MAC",
                "host a { hardware ethernet 00:00:5e:00:53:41; fixed-address 10.1.1.999; } | Line 1:",
                "~host a { hardware ethernet 00:00:5e:00:53:41 fixed-address 10.1.1.9; } | Line 2: “;” is expected.",
                "group a { } | Line 1: “host” is expected.",
                "host a { hardware ethernet 00:00:5e:00:53:41; fixed-address 10.1.1.1; }~host a { hardware ethernet "
                        + "00:00:5e:00:53:42; fixed-address 10.1.1.2; } | Line 2: a stands there twice.",
                "host a { hardware ethernet 00:00:5e:00:53:41; fixed-address 10.1.1.1; }~host b { hardware ethernet "
                        + "00:00:5e:00:53:42; fixed-address 10.1.1.1; } | Line 2: 10.1.1.1 belongs to a already.",
            })
    void refusesSlips(String text, String said) {
        assertThatThrownBy(() -> DhcpFiles.parse(text.replace('~', '\n')))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith(said);
    }

    private HttpClient http;
    private String base;

    private HttpResponse<String> post(String path, String form) throws Exception {
        return http.send(
                HttpRequest.newBuilder(URI.create(base + path))
                        .header("Content-Type", "application/x-www-form-urlencoded")
                        .POST(HttpRequest.BodyPublishers.ofString(form))
                        .build(),
                HttpResponse.BodyHandlers.ofString());
    }

    private HttpResponse<String> get(String path) throws Exception {
        return http.send(HttpRequest.newBuilder(URI.create(base + path)).build(), HttpResponse.BodyHandlers.ofString());
    }

    @Test
    void thePortalKeepsItsRulesAndGivesBackItsTable() throws Exception {
        var server = HttpServer.create(new InetSocketAddress("127.215.0.2", 0), 4);
        server.createContext("/", new Portal(folder.resolve("portal.json"), Clock.fixed(NOW, ZoneOffset.UTC)));
        server.start();
        try {
            http = HttpClient.newBuilder().cookieHandler(new CookieManager()).build();
            base = "http://127.215.0.2:" + server.getAddress().getPort();
            assertThat(get("/devices.csv").statusCode()).isEqualTo(401);
            assertThat(post("/sign-in", "name=imke&password=wrong").statusCode())
                    .isEqualTo(401);
            assertThat(post("/sign-in", "name=imke&password=garden-gate").statusCode())
                    .isEqualTo(200);
            for (String[] row : new String[][] {
                {"name=Copier&mac=00:00:5E:00:53:40&shared=on&users=Ada", "Registered. Restart the device."},
                {"name=Copier+2&mac=00:00:5E:00:53:40", "00:00:5E:00:53:40 is registered already, by imke."},
                {"name=COPIER&mac=00:00:5E:00:53:41", "“Copier” is taken."},
                {"name=Phone&mac=02:00:5E:00:53:41", "is not the MAC of a device of its own."},
                {"name=Phone&mac=00:00:5E:00:53", "That is no MAC: six pairs with colons."},
                {"name=Phone&mac=00:00:5E:00:53:41&users=Ben", "A device that is not shared has no other users."},
                {"name=Phone&mac=00:00:5E:00:53:41&shared=on", "Name at least one who shares it."},
                {"name=" + "x".repeat(41) + "&mac=00:00:5E:00:53:41", "A name has 1 to 40 characters."},
                {"name=<b>Phone&mac=00:00:5E:00:53:41", "Registered. Restart the device."},
            })
                assertThat(post("/devices", row[0]).body())
                        .as(row[0])
                        .contains(row[1])
                        .doesNotContain("<b>Phone");
            var read = RegistryReader.read(RegistryForm.CSV, get("/devices.csv").body());
            assertThat(read.problems()).isEmpty();
            assertThat(read.entries().stream()
                            .map(r -> r.entry().name() + " " + r.entry().mac().orElseThrow() + " "
                                    + r.entry().sharedWith()))
                    .containsExactly("<b>Phone 00:00:5E:00:53:41 []", "Copier 00:00:5E:00:53:40 [Ada]");
            post("/gone", "mac=00:00:5E:00:53:41");
            assertThat(get("/").body()).doesNotContain("00:00:5E:00:53:41").contains("2027-11-25");
            var later = Clock.fixed(NOW.plus(Duration.ofDays(366)), ZoneOffset.UTC);
            assertThat(new Portal(folder.resolve("portal.json"), later).living())
                    .isEmpty();
        } finally {
            server.stop(0);
        }
    }
}
