package app.knottag.core.gear;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.gear.GearAccess.Auth;
import app.knottag.core.gear.GearAccess.Privacy;
import app.knottag.core.gear.GearAccess.Version;
import app.knottag.core.gear.PortJudge.Device;
import app.knottag.core.gear.Walked.Cell;
import app.knottag.core.hardware.Gear;
import app.knottag.core.hardware.Gear.Role;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reading.ReadingException;
import java.nio.charset.StandardCharsets;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.EnumSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** What gear tells, written by hand from the standards' tables, and what is made of it. */
class GearTest {

    /** Lines as a walk prints them in figures: identifier, type, value. */
    private static Walked walk(String text) {
        var columns = new EnumMap<GearColumn, List<Cell>>(GearColumn.class);
        for (String line : text.strip().split("\n")) {
            String[] parts = line.strip().split(" = ", 2);
            String[] value = parts[1].split(": ", 2);
            for (var column : GearColumn.values()) {
                String base = column.oid().stream().map(String::valueOf).collect(Collectors.joining(".")) + ".";
                if (!parts[0].startsWith(base)) continue;
                var index = Arrays.stream(parts[0].substring(base.length()).split("\\."))
                        .map(Long::valueOf)
                        .toList();
                var cell = switch (value[0]) {
                    case "Hex-STRING" -> Cell.of(index, hex(value[1]));
                    case "STRING" -> Cell.of(index, value[1].getBytes(StandardCharsets.UTF_8));
                    default -> Cell.of(index, Long.parseLong(value[1]));
                };
                columns.computeIfAbsent(column, c -> new ArrayList<>()).add(cell);
            }
        }
        return new Walked(columns, EnumSet.noneOf(GearColumn.class));
    }

    private static byte[] hex(String text) {
        String[] pairs = text.strip().split(" ");
        byte[] octets = new byte[pairs.length];
        for (int i = 0; i < pairs.length; i++) octets[i] = (byte) Integer.parseInt(pairs[i], 16);
        return octets;
    }

    private static final String IF = "1.3.6.1.2.1.2.2.1.";

    /** A switch of so many ports, all up at 1000 Mbit/s and full duplex, that are its bridge's ports 1, 2, 3 and so on. */
    private static String ports(String name, int count) {
        return IntStream.rangeClosed(1, count)
                .mapToObj(n -> {
                    int i = 100 + n;
                    return String.join(
                            "\n",
                            IF + "2." + i + " = STRING: " + name + n,
                            IF + "3." + i + " = INTEGER: 6",
                            IF + "7." + i + " = INTEGER: 1",
                            IF + "8." + i + " = INTEGER: 1",
                            "1.3.6.1.2.1.31.1.1.1.15." + i + " = Gauge32: 1000",
                            "1.3.6.1.2.1.10.7.2.1.19." + i + " = INTEGER: 3",
                            "1.3.6.1.2.1.17.1.4.1.2." + n + " = INTEGER: " + i);
                })
                .collect(Collectors.joining("\n"));
    }

    /** The MAC 00:00:5E:00:53:nn was learned at a port of the bridge. */
    private static String learned(int nn, int port) {
        return "1.3.6.1.2.1.17.4.3.1.2.0.0.94.0.83." + nn + " = INTEGER: " + port;
    }

    private static Mac mac(int nn) {
        return Mac.parse("00:00:5E:00:53:%02X".formatted(nn));
    }

    private static Gear gear(int ports) {
        return new Gear(
                1,
                "Shop switch",
                Gear.Type.SWITCH,
                IntStream.rangeClosed(1, ports)
                        .mapToObj(n -> new Gear.Port(n, n, n == 8 ? Role.UPLINK : Role.LAN, Optional.empty(), true))
                        .toList());
    }

    private static Device device(int nn, long port) {
        return new Device(
                nn,
                "Till " + nn,
                List.of(mac(nn)),
                Optional.of(port).filter(p -> p > 0),
                port > 0 ? "Shop switch " + port : "");
    }

    private static final List<Device> TILLS = List.of(
            device(1, 1),
            device(2, 2),
            device(3, 3),
            device(4, 0),
            new Device(9, "Camera", List.of(mac(9)), Optional.of(77L), "Yard switch 2"));

    @DisplayName("What a port tells is held against who is on record there")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "all where they belong | 1@1 2@2 3@3 |  |",
                "two leads are changed over | 1@2 2@1 3@3 |  | Shop switch 1! Till 1 is on record here, and hangs at "
                        + "Shop switch 2.; Shop switch 2! Till 2 is on record here, and hangs at Shop switch 1.",
                "one hangs behind the uplink | 1@1 2@8 20@8 21@8 |  | Shop switch 2! Till 2 is on record here, and is "
                        + "heard through Shop switch 8: it hangs somewhere behind that.; Shop switch 3? Nobody was heard here in "
                        + "the last minutes, so whether Till 3 hangs here is not known.",
                "five at one port lead on | 1@1 2@5 20@5 21@5 22@5 23@5 3@3 |  | Shop switch 2! Till 2 is on record "
                        + "here, and is heard through Shop switch 5: it hangs somewhere behind that.",
                "a dark port | 1@1 2@2 | 8.103 = INTEGER: 2 | Shop switch 3! Till 3 is on record here, and the port is "
                        + "dark.",
                "a port without anybody below it | 1@1 2@2 | 8.103 = INTEGER: 7 | Shop switch 3! Till 3 is on record "
                        + "here, and the port is dark.",
                "a port that is switched off | 1@1 2@2 | 7.103 = INTEGER: 2 | Shop switch 3! Till 3 is on record here, "
                        + "and the port is switched off in the settings.",
                "a stranger in its place | 1@1 2@2 200@3 |  | Shop switch 3! Till 3 is on record here and is not heard; "
                        + "00:00:5E:00:53:C8 is.",
                "nobody heard says nothing |  |  |",
                "no port is on record | 1@1 2@2 3@3 4@6 |  | Shop switch 6? Till 4 hangs here; no port is on record for "
                        + "it.",
                "on record at other gear | 1@1 2@2 3@3 9@6 |  | Shop switch 6! Camera hangs here, and is on record at "
                        + "Yard switch 2.",
                "two at one port | 1@1 2@2 3@3 30@3 |  | Shop switch 3? 2 were heard here: a small switch, or one device "
                        + "with several MACs.",
                "half duplex | 1@1 2@2 3@3 | 19.102 = INTEGER: 2 | Shop switch 2! Half duplex at 1000 Mbit/s: most "
                        + "likely one end is fixed and the other on automatic.",
                "broken packets | 1@1 2@2 3@3 | 14.102 = Counter32: 200; 11.102 = Counter32: 1800 | Shop switch 2! 200 "
                        + "packets came in broken, one of 10.",
                "few broken among very many | 1@1 2@2 3@3 | 14.102 = Counter32: 200; 11.102 = Counter32: 3000000 |",
                "feeding failed | 1@1 2@2 3@3 | 6.1.2 = INTEGER: 4 | Shop switch 2! It says that feeding power failed "
                        + "here.",
            })
    void judged(String what, String where, String more, String says) {
        var text = new StringBuilder(ports("Port ", 8)).append('\n');
        for (String one : Optional.ofNullable(where).orElse("").split(" "))
            if (!one.isEmpty())
                text.append(learned(Integer.parseInt(one.split("@")[0]), Integer.parseInt(one.split("@")[1])))
                        .append('\n');
        var walked = walk(text.toString());
        for (String line : Optional.ofNullable(more).orElse("").split("; ")) if (!line.isBlank()) replace(walked, line);
        var lines = PortJudge.of(gear(8), GearReader.read(walked), TILLS);
        assertThat(lines).hasSize(8);
        assertThat(lines.stream()
                        .flatMap(l -> l.remarks().stream().map(r -> l.label() + (r.wrong() ? "! " : "? ") + r.says()))
                        .collect(Collectors.joining("; ")))
                .isEqualTo(Optional.ofNullable(says).orElse(""));
        assertThat(lines.stream().flatMap(l -> l.remarks().stream()).filter(PortLine.Remark::wrong))
                .allSatisfy(r -> assertThat(r.act()).isNotEmpty());
    }

    /** Puts a cell into the table of interfaces, of duplex or of power, instead of what stood there. */
    private static void replace(Walked walked, String line) {
        String base = line.startsWith("19.")
                ? "1.3.6.1.2.1.10.7.2.1."
                : line.startsWith("6.") ? "1.3.6.1.2.1.105.1.1.1." : IF;
        walk(base + line).columns().forEach((column, cells) -> {
            var all = walked.columns().computeIfAbsent(column, c -> new ArrayList<>());
            all.removeIf(c -> c.index().equals(cells.get(0).index()));
            all.addAll(cells);
        });
    }

    @DisplayName("Names of ports are held for numbers on record only where they leave no choice")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "Port 1, Port 2, Port 3             | 1=Port 1 2=Port 2 3=Port 3           | ''",
                "gi1/0/1, gi1/0/2, gi1/0/3, te1/0/1 | 1=gi1/0/1 2=gi1/0/2 3=gi1/0/3        | ''",
                "gi1/0/1, gi1/0/2, sfp3             | 1=gi1/0/1 2=gi1/0/2 3=sfp3           | ''",
                "gi1/0/1, gi1/0/2, gi2/0/1, gi2/0/2 |                                      | Several of its ports",
                "eth0, eth1, eth2                   |                                      | It counts its ports from 0",
                "uplink, downlink                   |                                      | Its ports have no numbers",
                "lan1, lan2, lan3, wan              | 1=lan1 2=lan2 3=lan3 8=wan           | ''",
                "eth0, eth1, wan1                   | 8=wan1                               | It counts its ports from 0",
                "_, _                               |                                      | Its ports have no numbers",
                "lan21, lan22                       |                                      | None of its ports",
            })
    void named(String names, String matched, String why) {
        var gear = new Gear(
                1,
                "Router",
                Gear.Type.ROUTER,
                IntStream.rangeClosed(1, 8)
                        .mapToObj(n -> new Gear.Port(n, n, n == 8 ? Role.WAN : Role.LAN, Optional.empty(), false))
                        .toList());
        var text = new StringBuilder();
        int i = 0;
        for (String name : names.split(", ")) {
            i++;
            text.append(IF + "3." + i + " = INTEGER: 6\n");
            if (!name.equals("_")) text.append(IF + "2." + i + " = STRING: " + name + "\n");
        }
        var found = PortNames.match(gear, GearReader.read(walk(text.toString())).ports());
        assertThat(found.byNumber().entrySet().stream()
                        .map(e -> e.getKey() + "=" + e.getValue().label())
                        .collect(Collectors.joining(" ")))
                .isEqualTo(Optional.ofNullable(matched).orElse(""));
        assertThat(found.why()).startsWith(why);
    }

    @DisplayName("Both forwarding tables, both neighbour tables, and who is at the other end")
    @Test
    void tables() {
        var read = GearReader.read(walk(ports("ge-0/0/", 3) + """

                1.3.6.1.2.1.1.5.0 = STRING: core\u0007switch
                1.3.6.1.2.1.1.3.0 = Timeticks: 8640050
                1.3.6.1.2.1.17.4.3.1.2.0.0.94.0.83.1 = INTEGER: 1
                1.3.6.1.2.1.17.7.1.2.2.1.2.10.0.0.94.0.83.1 = INTEGER: 2
                1.3.6.1.2.1.17.7.1.2.2.1.2.20.0.0.94.0.83.1 = INTEGER: 2
                1.3.6.1.2.1.17.7.1.2.2.1.2.20.0.0.94.0.83.2 = INTEGER: 3
                1.3.6.1.2.1.17.7.1.2.2.1.3.20.0.0.94.0.83.2 = INTEGER: 3
                1.3.6.1.2.1.17.7.1.2.2.1.2.20.0.0.94.0.83.3 = INTEGER: 3
                1.3.6.1.2.1.17.7.1.2.2.1.3.20.0.0.94.0.83.3 = INTEGER: 4
                1.3.6.1.2.1.17.7.1.2.2.1.2.20.1.0.94.0.0.251 = INTEGER: 3
                1.3.6.1.2.1.17.7.1.2.2.1.2.20.0.0.94.0.83.4 = INTEGER: 0
                1.3.6.1.2.1.4.22.1.2.7.10.7.0.99 = Hex-STRING: 00 00 5E 00 53 63
                1.3.6.1.2.1.4.35.1.4.7.1.4.10.7.0.51 = Hex-STRING: 00 00 5E 00 53 01
                1.3.6.1.2.1.4.35.1.7.7.1.4.10.7.0.51 = INTEGER: 1
                1.3.6.1.2.1.4.35.1.4.7.1.4.10.7.0.52 = Hex-STRING: 00 00 5E 00 53 02
                1.3.6.1.2.1.4.35.1.7.7.1.4.10.7.0.52 = INTEGER: 2
                1.3.6.1.2.1.4.35.1.4.7.1.4.10.7.0.53 = Hex-STRING: 00 00 00 00 00 00
                1.3.6.1.2.1.4.35.1.7.7.1.4.10.7.0.53 = INTEGER: 7
                1.3.6.1.2.1.4.35.1.4.7.2.16.254.128.0.0.0.0.0.0.0.0.0.0.0.0.0.1 = Hex-STRING: 00 00 5E 00 53 05
                1.0.8802.1.1.2.1.3.7.1.3.2 = STRING: ge-0/0/2
                1.0.8802.1.1.2.1.4.1.1.8.40.2.1 = STRING: Port 8
                1.0.8802.1.1.2.1.4.1.1.9.40.2.1 = STRING: Yard switch
                1.0.8802.1.1.2.1.4.1.1.9.40.9.1 = STRING: Who knows where
                """));
        assertThat(read.name()).isEqualTo("core?switch");
        assertThat(read.upSeconds()).contains(86_400L);
        assertThat(read.ports().stream().map(p -> p.label() + " " + p.macs() + p.other()))
                .containsExactly(
                        "ge-0/0/1 []",
                        "ge-0/0/2 [00:00:5E:00:53:01]Yard switch, Port 8",
                        "ge-0/0/3 [00:00:5E:00:53:02]");
        assertThat(read.neighbours().stream().map(n -> n.address() + " " + n.mac()))
                .containsExactly("10.7.0.51 00:00:5E:00:53:01");
        assertThat(read.remarks())
                .containsExactly(
                        "One neighbour that it has not talked with lately may be gone, and is not taken as seen.");
        var old = GearReader.read(walk("""
                1.3.6.1.2.1.4.22.1.2.7.10.7.0.99 = Hex-STRING: 00 00 5E 00 53 63
                1.3.6.1.2.1.4.22.1.2.7.10.7.0.98 = Hex-STRING: 00 00 5E 00 53 62
                1.3.6.1.2.1.4.22.1.4.7.10.7.0.98 = INTEGER: 2
                1.3.6.1.2.1.4.22.1.2.7.10.7.0.300 = Hex-STRING: 00 00 5E 00 53 62
                1.3.6.1.2.1.4.22.1.2.7.10.7.0.97 = Hex-STRING: 00 00 5E
                """));
        assertThat(old.neighbours().stream().map(n -> n.address() + " " + n.mac()))
                .containsExactly("10.7.0.99 00:00:5E:00:53:63");
        assertThat(old.remarks()).hasSize(2);
    }

    @DisplayName("Where somebody hangs is said for ports that do not lead on")
    @Test
    void hangs() {
        var lines = PortJudge.of(
                gear(8),
                GearReader.read(
                        walk(ports("Port ", 8) + "\n" + learned(1, 1) + "\n" + learned(2, 8) + "\n" + learned(3, 8))),
                TILLS);
        assertThat(PortJudge.at(lines)).isEqualTo(Map.of(mac(1), "Shop switch 1"));
        assertThat(lines.get(0).right()).isTrue();
        assertThat(lines.get(7).through()).isTrue();
    }

    @DisplayName("Of a port that was not told, and at which somebody is on record, nothing is made up")
    @Test
    void untold() {
        var lines = PortJudge.of(gear(8), GearReader.read(walk(ports("eth0/", 2) + "\n" + learned(1, 2))), TILLS);
        assertThat(lines.stream()
                        .flatMap(l -> l.remarks().stream().map(r -> l.label() + (r.wrong() ? "! " : "? ") + r.says())))
                .containsExactly(
                        "Shop switch 1! Till 1 is on record here, and hangs at Shop switch 2.",
                        "Shop switch 2! Till 2 is on record here and is not heard; Till 1 is.",
                        "Shop switch 3? Till 3 is on record here, and nothing was told of this port.");
    }

    @DisplayName("Who was heard at a group of ports is not called silent, and of half a table nothing is said")
    @Test
    void groupsAndHalves() {
        var walked =
                walk(ports("Port ", 3) + "\n" + learned(1, 1) + "\n" + learned(2, 40) + "\n" + learned(20, 2) + """

                1.3.6.1.2.1.17.1.4.1.2.40 = INTEGER: 500
                1.3.6.1.2.1.2.2.1.2.500 = STRING: Group 1
                1.3.6.1.2.1.2.2.1.3.500 = INTEGER: 161
                1.3.6.1.2.1.2.2.1.5.102 = Gauge32: 4294967295
                """);
        walked.columns().remove(GearColumn.FAST_SPEED);
        var read = GearReader.read(walked);
        assertThat(read.ports().stream().map(p -> p.label() + " " + p.megabits()))
                .containsExactly("Port 1 0", "Port 2 0", "Port 3 0", "Group 1 0");
        assertThat(PortJudge.of(gear(8), read, TILLS).get(1).remarks().get(0).says())
                .isEqualTo("Till 2 is on record here, and hangs at Shop switch Group 1.");
        var half = GearReader.read(new Walked(walked.columns(), EnumSet.of(GearColumn.FORWARDING)));
        assertThat(half.remarks().get(0)).startsWith("Its forwarding table was not read to the end");
        assertThat(PortJudge.of(gear(8), half, TILLS).get(1).remarks()).isEmpty();
    }

    @DisplayName("Whatever it tells, nothing is thrown, and nobody is made up")
    @Test
    void nonsense() {
        var random = new Random(7);
        for (int round = 0; round < 300; round++) {
            var columns = new EnumMap<GearColumn, List<Cell>>(GearColumn.class);
            for (var column : GearColumn.values())
                for (int n = random.nextInt(12); n > 0; n--) {
                    var index = random.longs(random.nextInt(14), 0, random.nextBoolean() ? 9 : 1L << 32)
                            .boxed()
                            .toList();
                    byte[] octets = new byte[random.nextInt(9)];
                    random.nextBytes(octets);
                    columns.computeIfAbsent(column, c -> new ArrayList<>())
                            .add(
                                    random.nextBoolean()
                                            ? Cell.of(index, random.nextLong(-3, 9))
                                            : Cell.of(index, octets));
                }
            var read = GearReader.read(new Walked(columns, EnumSet.of(GearColumn.POWER)));
            assertThat(read.remarks()).anyMatch(r -> r.startsWith("It was not read to the end"));
            var lines = PortJudge.of(gear(8), read, TILLS);
            assertThat(lines.size()).isGreaterThanOrEqualTo(8);
            assertThat(read.neighbours())
                    .allMatch(n -> !n.mac().group() && n.mac().bits() != 0);
        }
    }

    @DisplayName("Words that gear cannot take are refused before anybody is asked, and are never shown")
    @Test
    void access() {
        assertThat(new GearAccess(Version.V3, "reader", Auth.SHA, "correct horse", Privacy.AES, "battery staple")
                        .toString())
                .isEqualTo("GearAccess[V3]");
        assertThatThrownBy(() -> new GearAccess(Version.V2C, "", Auth.NONE, "", Privacy.NONE, ""))
                .isInstanceOf(ReadingException.class)
                .hasMessageContaining("a community has 1 to 32");
        assertThatThrownBy(() -> new GearAccess(Version.V3, "reader", Auth.SHA, "short", Privacy.NONE, ""))
                .isInstanceOf(ReadingException.class)
                .hasMessageContaining("at least 8");
        assertThatThrownBy(() -> new GearAccess(Version.V3, "reader", Auth.NONE, "", Privacy.AES, "battery staple"))
                .isInstanceOf(ReadingException.class)
                .hasMessageContaining("proves who she is");
    }
}
