package app.knottag.standins;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.reach.Fault;
import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStreamReader;
import java.net.DatagramPacket;
import java.net.DatagramSocket;
import java.net.InetSocketAddress;
import java.net.Socket;
import java.nio.file.Path;
import java.time.Instant;
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

    @DisplayName("A fault is seen by the next probe, and mending it too")
    @ParameterizedTest(name = "{0}: echo {1}, service {2}")
    @CsvSource({
        "UNPLUGGED, false, refused",
        "BACK_ON_AUTOMATIC, false, refused",
        "ADDRESS_HELD_BY_ANOTHER, true, refused",
        "SERVICE_ON_OTHER_PORT, true, refused",
    })
    void faults(Fault fault, boolean echo, String service) throws IOException {
        for (int round = 0; round < 3; round++) {
            bench.change("till-1", device -> device.upset(fault, true));
            assertThat(echoes("10.44.16.51")).isEqualTo(echo);
            assertThat(ask("10.44.16.51", 7451, "WHO ARE YOU")).isEqualTo(service);
            bench.change("till-1", device -> device.upset(fault, false));
            assertThat(ask("10.44.16.51", 7451, "WHO ARE YOU")).isEqualTo("I AM OC2-7H41-0031");
        }
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
