package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Form;
import app.knottag.core.kind.Kinds;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Texts as tools and devices really write them. */
class PastedTest {

    private static final Instant NOW = Instant.parse("2026-11-28T12:00:00Z");
    private static final Segment SHOP = new Segment(
            Ipv4Prefix.parse("10.44.16.0/24"),
            Optional.of(Ipv4Address.parse("10.44.16.1")),
            List.of(new Pool(Ipv4Address.parse("10.44.16.100"), Ipv4Address.parse("10.44.16.199"))));
    private static final Target TILL = new Target(
            Ipv4Address.parse("10.44.16.54"),
            Mac.parse("00:00:5E:00:53:2B"),
            "OC2-7H41-0093",
            7454,
            SHOP,
            Kinds.shipped().get("counter-payment-terminal").service(),
            Optional.empty(),
            Map.of(Mac.parse("00:00:5E:00:53:11"), "Till 1", Mac.parse("00:00:5E:00:53:2D"), "Till 5"),
            List.of(),
            List.of(),
            List.of(SHOP.prefix()),
            Optional.empty());

    @DisplayName("The form is recognised, and what concerns this endpoint is compared")
    @ParameterizedTest(name = "{0}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "ECHO | PING 10.44.16.54 (10.44.16.54) 56(84) bytes of data.¶64 bytes from 10.44.16.54: icmp_seq=1 "
                        + "ttl=64 time=0.5 ms | 10.44.16.54 answered there. Who answered is not said: a ping is no "
                        + "proof by itself. | PING=ANSWERS",
                "ECHO | PING 10.44.16.54 (10.44.16.54) 56(84) bytes of data.¶From 10.44.16.9 icmp_seq=1 Destination "
                        + "Host Unreachable¶1 packets transmitted, 0 received | 10.44.16.9 says that 10.44.16.54 cannot "
                        + "be reached. That says something about the way from there, and not yet about the device. |",
                "ECHO | Pinging 10.44.16.54 with 32 bytes of data:¶Request timed out. | 10.44.16.54 did not answer there. | PING=SILENT",
                "ECHO | Reply from 10.44.16.54: bytes=32 time<1ms TTL=64 | 10.44.16.54 answered there. Who answered is "
                        + "not said: a ping is no proof by itself. | PING=ANSWERS",
                "ECHO | PING 10.44.16.45 (10.44.16.45)¶64 bytes from 10.44.16.45: icmp_seq=1 ttl=64 | That was an echo "
                        + "of 10.44.16.45; this one is 10.44.16.54. |",
                "ECHO | PING 10.44.16.54 (10.44.16.54) 56(84) bytes of data. | The echo is cut off: paste it to its last line. |",
                "ECHO | user@10.44.16.54:~$ ping 10.44.16.9¶64 bytes from 10.44.16.9: icmp_seq=1 ttl=64 | That was an "
                        + "echo of 10.44.16.9; this one is 10.44.16.54. |",
                "ECHO | ping: connect: Network is unreachable | The machine that asked has no network or no way there "
                        + "itself: this says nothing about 10.44.16.54. Plug it in, and ask again. |",
                "ECHO | 64 bytes from 10.44.16.54: icmp_seq=1 ttl=64 time=0.5 ms¶4 packets transmitted, 1 received, 75% "
                        + "packet loss | 10.44.16.54 answered there, but 75 of 100 were lost: a bad lead, a full line, "
                        + "or two devices at one address. | PING=ANSWERS",
                "ECHO | 64 bytes from 10.44.16.54: icmp_seq=1 ttl=64 time=0.9 ms (DUP!) | One question had two answers. "
                        + "Two devices have 10.44.16.54, or the network has a loop. |",
                "ARP_ECHO | ARPING 10.44.16.54 from 10.44.16.9 eth0¶Unicast reply from 10.44.16.54 [00:00:5E:00:53:2B]  "
                        + "0.7ms | 10.44.16.54 is 00:00:5E:00:53:2B, as on the tag. | NEIGHBOUR=RIGHT",
                "ARP_ECHO | ARPING 10.44.16.54 from 10.44.16.9 eth0¶Unicast reply from 10.44.16.54 [00:00:5E:00:53:2B]  "
                        + "0.7ms¶Unicast reply from 10.44.16.54 [00:00:5E:00:53:2D]  0.9ms | One question had two "
                        + "answers: 00:00:5E:00:53:2B (on the tag) and 00:00:5E:00:53:2D (Till 5). Two devices have "
                        + "10.44.16.54, or the network has a loop. |",
                "PORT_TEST | Connection to 10.44.16.54 7454 port [tcp/*] succeeded! | 10.44.16.54 port 7454 takes "
                        + "connections. Who answered is not said. | PORT=OPEN",
                "PORT_TEST | nc: connect to 10.44.16.54 port 7454 (tcp) failed: No route to host | There is no way from "
                        + "there to 10.44.16.54 port 7454. That says nothing about the device yet. |",
                "NEIGHBOURS | ? (10.44.16.54) at 00:00:5e:00:53:2b [ether] on eth0 | 10.44.16.54 is 00:00:5E:00:53:2B, "
                        + "as on the tag. | NEIGHBOUR=RIGHT",
                "NEIGHBOURS | 10.44.16.54 dev eth0 lladdr 00:00:5e:00:53:11 REACHABLE | 10.44.16.54 is "
                        + "00:00:5E:00:53:11 (Till 1), not 00:00:5E:00:53:2B. | NEIGHBOUR=OTHER",
                "NEIGHBOURS | 10.44.16.54 dev eth0 lladdr 00:00:5e:00:53:2b STALE | 10.44.16.54 is 00:00:5E:00:53:2B, "
                        + "as on the tag. The line is old: it may have gone since. |",
                "NEIGHBOURS | 10.44.16.54 dev eth0 FAILED | 10.44.16.54 did not answer when the list was made. |",
                "NEIGHBOURS | 10.44.16.54 dev eth0 lladdr 00:00:5e:00:53:2b REACHABLE¶10.44.16.54 dev eth1 lladdr "
                        + "00:00:5e:00:53:2d REACHABLE | 10.44.16.54 is held by two: 00:00:5E:00:53:2B (on the tag) and "
                        + "00:00:5E:00:53:2D (Till 5). Pull the plug of one and look again. |",
                "NEIGHBOURS | 10.44.16.54  00-00-5E-00-53-2D  dynamic | 10.44.16.54 is 00:00:5E:00:53:2D (Till 5), not "
                        + "00:00:5E:00:53:2B. | NEIGHBOUR=OTHER",
                "NEIGHBOURS | Internet  10.44.16.54  4  0000.5e00.532c  ARPA  Vlan10 | 10.44.16.54 is "
                        + "00:00:5E:00:53:2C, most likely its other interface; on the tag is 00:00:5E:00:53:2B. | "
                        + "NEIGHBOUR=SIBLING",
                "NEIGHBOURS | 10.44.16.130  00-00-5E-00-53-2B  dynamic | Its MAC is at 10.44.16.130, in the pool: it is "
                        + "on automatic. | LEASES=LEASED",
                "NEIGHBOURS | 10.44.16.9  00-00-5E-00-53-77  dynamic | Neither 10.44.16.54 nor 00:00:5E:00:53:2B is in it, of 1 line. |",
                "LEASES | lease 10.44.16.131 { hardware ethernet 00:00:5e:00:53:2b; }  | Its MAC is at 10.44.16.131, in "
                        + "the pool: it is on automatic. | LEASES=LEASED",
                "LEASES | lease 10.44.16.131 { binding state free; hardware ethernet 00:00:5e:00:53:2b; }  | Its MAC "
                        + "had a lease at 10.44.16.131, which is over. |",
                "SWITCH | 10    0000.5e00.532b    DYNAMIC     Gi0/4 | The switch has its MAC at “Gi0/4” in VLAN 10, as "
                        + "on record (Shop switch 4). |",
                "SWITCH | 10    0000.5e00.532b    DYNAMIC     Gi2/0/4 | The switch has its MAC at “Gi2/0/4” in VLAN 10, "
                        + "that is on unit 2; on record is Shop switch 4. Look whether that is the same unit. |",
                "SWITCH | 10    0000.5e00.532b    DYNAMIC     bond0 | The switch has its MAC behind “bond0” in VLAN 10, "
                        + "several cables as one: it sits on another switch. Read that one's table. |",
                "SWITCH | 10    0000.5e00.532b    DYNAMIC     Po4 | The switch has its MAC behind “Po4” in VLAN 10, "
                        + "several cables as one: it sits on another switch. Read that one's table. |",
                "SWITCH | 00:00:5e:00:53:2b  vlan 10  port 9 | The switch has its MAC at “9” in VLAN 10; on record is Shop switch 4. |",
                "MAIL  | 550 5.1.1 User unknown | 550 5.1.1 refuses for good. Change the recipient: the address, letter "
                        + "by letter, or the entry in its address book. | REAL_JOB=FAILS",
                "MAIL  | 535 5.7.8 authentication failed | 535 5.7.8 refuses for good. Change the sign-in: user name or "
                        + "password, or a sign-in made for devices. | REAL_JOB=SIGN_IN",
                "MAIL  | 451 4.3.0 try again later | 451 4.3.0 puts it off. Nothing to change yet: it is tried again "
                        + "after 5, 15 and 45 minutes. |",
                "UNKNOWN | It is a fine day in May | This is nothing that is known here. Paste an echo, a neighbour "
                        + "table, a lease list, the MAC table of a switch, a scan, a test of a port, or what the mail "
                        + "server answers. |",
            })
    void reads(Form form, String text, String words, String questions) {
        var read = Pasted.read(text.replace('¶', '\n'), TILL, "Shop switch 4", NOW);
        assertThat(read.form()).isEqualTo(form);
        assertThat(read.findings()).extracting(Pasted.Finding::words).containsExactly(words);
        assertThat(read.questions().stream()
                        .map(m -> m.question() + "=" + m.outcome())
                        .collect(Collectors.joining(" ")))
                .isEqualTo(questions == null ? "" : questions);
    }

    @DisplayName("Hostile text is read in no time and shown plain")
    @Test
    void hostile() {
        long start = System.nanoTime();
        for (String evil : List.of(
                "9".repeat(200_000),
                "1.".repeat(100_000),
                "00:".repeat(60_000),
                "lease ".repeat(30_000) + "{",
                "5 5 5 ".repeat(40_000)))
            assertThat(Pasted.read(evil, TILL, "", NOW).findings()).isNotEmpty();
        assertThat((System.nanoTime() - start) / 1e9).isLessThan(5);
        assertThat(Pasted.read("00:00:5e:00:53:2b \u001b[2J 7", TILL, "", NOW)
                        .findings()
                        .get(0)
                        .words())
                .doesNotContain("\u001b");
    }
}
