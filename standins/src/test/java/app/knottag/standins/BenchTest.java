package app.knottag.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.reach.Fault;
import app.knottag.core.reach.Neighbour;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.ConnectException;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.file.Path;
import java.time.Instant;
import java.util.HashSet;
import java.util.Map;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** The stand-ins as the server meets them: over sockets. */
class BenchTest {

    // Each test has loopback addresses of its own, far from those that a demo takes first.
    private static int group = 220;

    @TempDir
    private Path folder;

    private Bench bench;

    @BeforeEach
    void aBench() throws IOException {
        bench = new Bench(++group, folder.resolve("kept.json"));
    }

    private boolean echoes(String address) throws IOException {
        try (var socket = new DatagramSocket()) {
            socket.connect(bench.loopback(Ipv4Address.parse(address)), 10_007);
            socket.setSoTimeout(300);
            socket.send(new DatagramPacket(new byte[] {1, 2}, 2));
            socket.receive(new DatagramPacket(new byte[2], 2));
            return true;
        } catch (IOException silent) {
            return false;
        }
    }

    private String ask(String address, int port, String line) {
        try (var socket = new Socket()) {
            socket.connect(new InetSocketAddress(bench.loopback(Ipv4Address.parse(address)), port), 500);
            socket.setSoTimeout(3_000);
            socket.getOutputStream().write((line + "\n").getBytes());
            return new BufferedReader(new InputStreamReader(socket.getInputStream())).readLine();
        } catch (IOException refused) {
            return "refused";
        }
    }

    @Test
    void aTerminalAnswersForItselfAndItsTillReachesIt() throws IOException {
        assertThat(echoes("10.44.16.51")).isTrue();
        assertThat(ask("10.44.16.51", 7451, "WHO ARE YOU")).isEqualTo("I AM OC2-7H41-0031");
        assertThat(ask("10.44.16.51", 7451, "something else")).isEqualTo("?");
        assertThat(ask("10.44.16.31", 7500, "TEST 10.44.16.51 7451")).isEqualTo("REACHED OC2-7H41-0031");
        assertThat(ask("10.44.16.31", 7500, "TEST 10.44.16.51 7999")).isEqualTo("REFUSED by 10.44.16.51 port 7999");
        assertThat(ask("10.44.16.31", 7500, "TEST; rm -rf")).isEqualTo("?");
        assertThat(bench.neighbours()).contains("10.44.16.51").contains("00:00:5e:00:53:11");
    }

    /** What a machine would find at the sockets, in the words of the looks. */
    private String wire(String address, int port, String ask) throws IOException {
        var at = Ipv4Address.parse(address);
        var holder = Neighbour.readTable(bench.neighbours()).stream()
                .filter(n -> n.address().equals(at))
                .findFirst();
        String open = "silent";
        if (holder.isPresent())
            try (var socket = new Socket()) {
                socket.connect(new InetSocketAddress(bench.loopback(at), port), 400);
                open = "open";
            } catch (ConnectException refused) {
                open = "refused";
            } catch (IOException silent) {
                // A firewall swallows it.
            }
        String said = open.equals("open") ? ask(address, port, ask) : "";
        return holder.map(n -> n.mac().toString().substring(15)).orElse("nobody") + " "
                + (echoes(address) ? "answers" : "silent") + " " + open + " " + said;
    }

    @DisplayName("A fault is seen by the next probe, and mending it too")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "NO_POWER         | nobody silent silent",
                "WAN_SOCKET       | nobody silent silent",
                "STILL_AUTOMATIC  | nobody silent silent",
                "ADDRESS_SLIP     | nobody silent silent",
                "HELD_BY_NEWER    | 4E answers refused",
                "HELD_BY_OLDER    | 4E answers refused",
                "MASK_WRONG       | 11 silent silent",
                "DEVICE_FIREWALL  | 11 answers silent",
                "SERVICE_OFF      | 11 answers refused",
                "OTHER_PORT       | 11 answers refused",
                "ALLOW_LIST       | 11 answers open null",
                "WRONG_UNIT       | 4E answers open I AM XX-0000-0000",
                "WRONG_VARIANT    | 11 answers open HELLO",
                "OTHER_INTERFACE_ON_RECORD | 10 answers open I AM OC2-7H41-0031",
                "CLOCK_WRONG      | 11 answers open I AM OC2-7H41-0031",
            })
    void faults(Fault fault, String seen) throws IOException {
        for (int round = 0; round < 2; round++) {
            bench.change("till-1", device -> device.upset(fault, true));
            assertThat(wire("10.44.16.51", 7451, "WHO ARE YOU").strip()).isEqualTo(seen);
            bench.change("till-1", device -> device.upset(fault, false));
            assertThat(ask("10.44.16.51", 7451, "WHO ARE YOU")).isEqualTo("I AM OC2-7H41-0031");
        }
    }

    @DisplayName("The partner's own side can be wrong as well")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "PARTNER_DOWN             | null",
                "PARTNER_POINTS_ELSEWHERE | null",
                "PARTNER_OTHER_PORT       | REFUSED by 10.44.16.51 port 7452",
                "CROSSED_PAIR             | REACHED XX-0000-0000",
                "ALLOW_LIST               | NO ANSWER: 10.44.16.51 hangs up",
                "WRONG_VARIANT            | REFUSED: a strange answer from 10.44.16.51",
                "NO_POWER                 | NO ANSWER from 10.44.16.51",
            })
    void partners(Fault fault, String said) throws IOException {
        bench.change("till-1", device -> device.upset(fault, true));
        assertThat("" + ask("10.44.16.31", 7500, "TEST 10.44.16.51 7451")).isEqualTo(said);
    }

    @DisplayName("Every fault that a device offers shows to somebody who stands before it or to the machine")
    @Test
    void everyOfferedFaultShows() throws IOException {
        var kinds = new HashSet<String>();
        for (var face : bench.faces()) {
            kinds.add(face.kind());
            assertThat(face.possible()).as(face.id()).contains(Fault.NO_POWER, Fault.HELD_BY_NEWER);
            assertThat(face.questions()).extracting(Device.Seen::seen).doesNotContainNull();
        }
        assertThat(kinds)
                .containsAll(Kinds.shipped().all().stream().map(Kind::id).toList());
        assertThat(bench.away()).isEmpty();
        bench.change("till-1", device -> device.upset(Fault.OWN_VANTAGE, true));
        assertThat(bench.away()).isEqualTo("10.44.16.");
        bench.change("till-1", device -> device.upset(Fault.GATEWAY_DOWN, true));
        assertThat(echoes("10.44.16.1")).isFalse();
        assertThat(echoes("10.44.24.1")).isTrue();
    }

    @Test
    void aScreenThatIsFilledInAnewIsRightAfterTheRestart() throws IOException {
        bench.change("till-1", device -> device.upset(Fault.ADDRESS_SLIP, true));
        var face = bench.faces().stream()
                .filter(f -> f.id().equals("till-1"))
                .findFirst()
                .orElseThrow();
        assertThat(face.screen()).isEqualTo("Address 10.44.61.51");
        bench.change("till-1", device -> device.restart(Instant.now().minusSeconds(60)));
        assertThat(echoes("10.44.16.51")).isFalse();
        bench.change("till-1", device -> device.type(face.typed()));
        bench.change("till-1", device -> device.restart(Instant.now().minusSeconds(60)));
        assertThat(echoes("10.44.16.51")).isTrue();
    }

    @Test
    void whatIsTypedTakesHoldWithTheRestartAndIsKept() throws IOException {
        assertThat(echoes("10.44.16.131")).isTrue();
        bench.change("till-4", device -> device.type(Map.of("Method", "static", "Address", "010.044.016.054")));
        assertThat(echoes("10.44.16.54")).isFalse();
        bench.change("till-4", device -> device.restart(Instant.now().minusSeconds(60)));
        assertThat(echoes("10.44.16.54")).isTrue();
        assertThat(echoes("10.44.16.131")).isFalse();
        bench = new Bench(++group, folder.resolve("kept.json"));
        assertThat(ask("10.44.16.54", 7454, "WHO ARE YOU")).isEqualTo("I AM OC2-7H41-0093");
    }

    @Test
    void aDeviceThatRestartsIsSilentMeanwhile() throws IOException {
        bench.change("till-1", device -> device.restart(Instant.now()));
        assertThat(echoes("10.44.16.51")).isFalse();
        assertThat(bench.faces())
                .filteredOn(f -> f.id().equals("till-1"))
                .singleElement()
                .satisfies(f -> assertThat(f.screen()).isEqualTo("Starting…"));
    }

    @DisplayName("A small screen refuses what is no address, and says so")
    @ParameterizedTest(name = "{0} = {1}")
    @CsvSource({"Address, 10.44.16.5.4", "Gateway, router", "Colour, red"})
    void refusesNonsense(String field, String text) {
        assertThatThrownBy(() -> bench.change("till-4", device -> device.type(Map.of(field, text))))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageContaining(field);
    }
}
