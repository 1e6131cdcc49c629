package app.knottag.core.register;

import static app.knottag.core.register.RegisterSamples.entry;
import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.hardware.Mac;
import app.knottag.core.register.HandOver.Change;
import app.knottag.core.register.Registry.Fact;
import java.nio.file.Files;
import java.nio.file.Path;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import java.util.concurrent.TimeUnit;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.api.io.TempDir;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.EnumSource;

class RegistryFileTest {

    private static final RegistryFile.Head HEAD =
            new RegistryFile.Head("Barn", "Router", "barn.internal", RegisterSamples.NOW, false);
    private static final List<RegistryEntry> BEFORE = List.of(
            entry("pgb-copy1", "00:00:5E:00:53:40", "10.44.17.40"),
            entry("pgb-old", "00:00:5E:00:53:41", "10.44.17.41"),
            entry("pgb-scan1", "00:00:5E:00:53:42", "10.44.17.42"));
    private static final List<RegistryEntry> NOW = List.of(
            entry("pgb-copy1", "00:00:5E:00:53:40", "10.44.17.40"),
            entry("pgb-scan1", "00:00:5E:00:53:4F", "10.44.17.42"),
            entry("pgb-new", "00:00:5E:00:53:43", "10.44.17.43"));

    private static HandOver all(List<RegistryEntry> entries) {
        return HandOver.between(List.of(), entries);
    }

    @DisplayName("Each form says the same in its own way")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "HOSTS        | 10.44.17.40\tpgb-copy1",
                "ETHERS       | 00:00:5e:00:53:40 pgb-copy1",
                "ZONE_FORWARD | pgb-copy1.barn.internal. IN A 10.44.17.40",
                "ZONE_REVERSE | 40.17.44.10.in-addr.arpa. IN PTR pgb-copy1.barn.internal.",
                "HOST_BLOCKS  | host pgb-copy1 { hardware ethernet 00:00:5e:00:53:40; fixed-address 10.44.17.40; }",
                "HOST_LINES   | dhcp-host=00:00:5e:00:53:40,10.44.17.40,pgb-copy1",
                "CSV          | new,pgb-copy1,00:00:5E:00:53:40,10.44.17.40,,,,",
                "PLAIN        | '  00:00:5E:00:53:40  10.44.17.40      pgb-copy1'",
            })
    void writes(RegistryForm form, String line) {
        assertThat(RegistryFile.write(form, HEAD, all(BEFORE)).lines()).contains(line);
    }

    @DisplayName("What changed since the last hand-over: what goes comes first")
    @Test
    void changesOnly() {
        var changes = HandOver.between(BEFORE, NOW).changed();
        assertThat(changes.lines().stream()
                        .map(l -> l.change() + " " + l.entry().name()))
                .containsExactly("GONE pgb-old", "CHANGED pgb-scan1", "NEW pgb-new");
        var head = new RegistryFile.Head("Barn", "Router", "x", RegisterSamples.NOW, true);
        assertThat(RegistryFile.write(RegistryForm.PLAIN, head, changes)).isEqualTo("""
                Barn, Router: what changed since the last hand-over, 2026-11-25 12:00 UTC

                Please take out (1)
                  00:00:5E:00:53:41  10.44.17.41      pgb-old

                Please add (1)
                  00:00:5E:00:53:43  10.44.17.43      pgb-new

                Please change (1)
                  00:00:5E:00:53:4F  10.44.17.42      pgb-scan1
                      was: 00:00:5E:00:53:42  10.44.17.42      pgb-scan1

                """);
        assertThat(RegistryFile.write(RegistryForm.HOST_BLOCKS, head, changes)).contains("# take out: host pgb-old {");
        assertThat(HandOver.between(NOW, NOW).changed().lines()).isEmpty();
    }

    @DisplayName("Every form is read back as it was written")
    @ParameterizedTest(name = "{0}")
    @EnumSource(RegistryForm.class)
    void readsBackWhatItWrote(RegistryForm form) {
        var random = new SplittableRandom(7);
        var entries = new ArrayList<RegistryEntry>();
        for (int i = 0; i < 300; i++)
            entries.add(new RegistryEntry(
                    "unit-" + i,
                    Optional.of(new Mac(0x00005E000000L + i * 7L)),
                    Optional.of(app.knottag.core.address.Ipv4Address.parse(
                            "10." + random.nextInt(256) + "." + i / 200 + "." + (1 + i % 200))),
                    "S-" + i,
                    "QX " + i % 3,
                    i % 4 == 0 ? "" : "Owner, \"" + i + "\"",
                    i % 5 == 0 ? List.of() : List.of("Ada", "Ben " + i)));
        // A list with a line to take out: a reader must not take it for what is held.
        var list = HandOver.between(List.of(entry("gone", "00:00:5E:00:54:00", "10.1.1.1")), entries);
        var read = RegistryReader.read(form, RegistryFile.write(form, HEAD, list));
        assertThat(read.problems()).isEmpty();
        var facts = new ArrayList<>(List.of(Fact.NAME));
        if (form.holdsMac()) facts.add(Fact.MAC);
        if (form != RegistryForm.ETHERS) facts.add(Fact.ADDRESS);
        boolean whole = form == RegistryForm.CSV || form == RegistryForm.JSON;
        if (whole) facts.addAll(List.of(Fact.SERIAL, Fact.MODEL));
        assertThat(read.entries().stream().map(r -> values(facts, r.entry())))
                .isEqualTo(entries.stream().map(e -> values(facts, e)).toList());
        if (whole)
            assertThat(read.entries().stream().map(RegistryReader.Read::entry)).isEqualTo(entries);
    }

    private static List<String> values(List<Fact> facts, RegistryEntry e) {
        return facts.stream().map(e::value).toList();
    }

    @DisplayName("Names become labels that are never the same twice; entries without an address are named")
    @Test
    void labels() {
        var list = all(List.of(
                entry("Über Büro!", "00:00:5E:00:53:01", "10.0.0.1"),
                entry("uber buro", "00:00:5E:00:53:02", "10.0.0.2"),
                entry("—", "00:00:5E:00:53:03", "10.0.0.3"),
                entry("No address", "00:00:5E:00:53:04")));
        assertThat(RegistryFile.write(RegistryForm.HOSTS, HEAD, list).lines().skip(1))
                .containsExactly("10.0.0.1\tuber-buro", "10.0.0.2\tuber-buro-2", "10.0.0.3\tunit");
        assertThat(RegistryFile.leftOut(RegistryForm.HOSTS, list)).containsExactly("No address");
        assertThat(RegistryFile.leftOut(RegistryForm.ETHERS, list)).isEmpty();
    }

    @DisplayName("A faulty list is refused with its line and column, and nothing of it is taken")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "HOSTS        | 10.1.1.1 a~10.1.1.300 b       | 2 address | The second group",
                "HOSTS        | justoneword                    | 1         | Two words are needed on the line: “justoneword”.",
                "ETHERS       | 00:00:5E:00:53:0G a            | 1 mac     | “G” cannot stand in a MAC; 6 looks like "
                        + "it. Look at the label again, also for B and 8, D and 0. Did you mean 00:00:5E:00:53:06?",
                "ETHERS       | 00:00:5E:00:53:01 a~00:00:5E:00:53:01 b | 2 mac | 00:00:5E:00:53:01 stands on line 1 already.",
                "CSV          | name;where~a;b                 | 1         | The first line must name the columns",
                "CSV          | name,mac~\"a,b                 | 1         | The table is not well-formed",
                "JSON         | {}                             | 1 entries | There is no list “entries” in this JSON.",
                "JSON         | {\"entries\": [                | 1         | This is not well-formed JSON",
                "HOST_BLOCKS  | host a { hardware ethernet 00:00:5e:00:53:01; fixed-address 10.1.1.1; }~host b { | 2 | "
                        + "The braces do not match: 2 open, 1 shut. Is the end of the file missing?",
                "HOST_BLOCKS  | subnet 10.0.0.0                | 1         | No entry of the form “reservations as host "
                        + "{ } blocks” can be found here. Is it another form?",
                "HOST_LINES   | dhcp-host=01:00:5e:00:53:01,10.1.1.1,a | 1 mac | 01:00:5E:00:53:01 is the address of a group",
                "ZONE_FORWARD | what is this                   | 1         | This line cannot be read: “what is this”.",
                "PLAIN        | ''                             | 1         | There is nothing here. Paste the list, or choose its file.",
            })
    void refuses(RegistryForm form, String text, String place, String said) {
        var read = RegistryReader.read(form, text.replace('~', '\n'));
        assertThat(read.entries()).isEmpty();
        var problem = read.problems().get(0);
        assertThat((problem.line() + " " + problem.column()).strip()).isEqualTo(place);
        if (!said.startsWith("The second")) assertThat(problem.message()).startsWith(said);
    }

    @Test
    void foreignBlocksAreReadAsPeopleWriteThem() {
        var read = RegistryReader.read(RegistryForm.HOST_BLOCKS, """
                # pool of the office
                subnet 10.44.17.0 netmask 255.255.255.0 { range 10.44.17.100 10.44.17.199; }
                host copier {
                  hardware ethernet 0:0:5e:0:53:40;   # upstairs
                  fixed-address 10.44.17.40;
                }
                # host retired { hardware ethernet 00:00:5e:00:53:41; fixed-address 10.44.17.41; }
                """);
        assertThat(read.problems()).isEmpty();
        assertThat(read.entries())
                .singleElement()
                .satisfies(r -> assertThat(r)
                        .isEqualTo(new RegistryReader.Read(3, entry("copier", "00:00:5E:00:53:40", "10.44.17.40"))));
    }

    /** The server's own check has the last word; KNOT_DHCPD may name it elsewhere. */
    @DisplayName("A DHCP server takes the reservations that were written")
    @ParameterizedTest(name = "{0}")
    @CsvSource({
        "HOST_BLOCKS, KNOT_DHCPD, /usr/sbin/dhcpd",
        "HOST_LINES, KNOT_DNSMASQ, /usr/sbin/dnsmasq",
        "RESERVATION_JSON, KNOT_KEA, /usr/sbin/kea-dhcp4"
    })
    void theServersOwnCheckAcceptsIt(RegistryForm form, String variable, String usual, @TempDir Path folder)
            throws Exception {
        String program = System.getenv().getOrDefault(variable, usual);
        assertThat(Path.of(program))
                .as("the server whose word this test takes; ./knot test installs it")
                .isExecutable();
        String list = RegistryFile.write(form, HEAD, all(BEFORE));
        var file = folder.resolve("server.conf");
        Files.writeString(
                file,
                switch (form) {
                    case HOST_BLOCKS -> "subnet 10.44.17.0 netmask 255.255.255.0 { }\n" + list;
                    case HOST_LINES -> "port=0\n" + list;
                    default ->
                        "{\"Dhcp4\": {\"lease-database\": {\"type\": \"memfile\", \"persist\": false}, \"subnet4\": "
                                + "[{\"id\": 1, \"subnet\": \"10.44.17.0/24\", "
                                + list.strip().substring(1) + "]}}";
                });
        assertThat(run(program, form, file)).as("a good list").isZero();
        Files.writeString(file, Files.readString(file).replace("00:00:5e:00:53:40", "00:00:5e:00:53:4g"));
        assertThat(run(program, form, file)).as("a list with a slip").isNotZero();
    }

    private static int run(String program, RegistryForm form, Path file) throws Exception {
        var line = switch (form) {
            case HOST_BLOCKS -> List.of(program, "-t", "-q", "-cf", file.toString());
            case HOST_LINES -> List.of(program, "--test", "-C", file.toString());
            default -> List.of(program, "-t", file.toString());
        };
        var process = new ProcessBuilder(line)
                .redirectErrorStream(true)
                .redirectOutput(ProcessBuilder.Redirect.DISCARD)
                .start();
        assertThat(process.waitFor(20, TimeUnit.SECONDS)).isTrue();
        return process.exitValue();
    }

    @DisplayName("A change is found by MAC, then address, then name")
    @ParameterizedTest(name = "{0} after {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "a 40 1  | a 40 1  | SAME",
                "a 40 1  | b 40 2  | CHANGED",
                "a 40 1  | b 41 1  | CHANGED",
                "a 40 1  | A 41 2  | CHANGED",
                "a 40 1  | b 41 2  | GONE,NEW",
            })
    void pairs(String before, String now, String changes) {
        assertThat(HandOver.between(List.of(short_(before)), List.of(short_(now))).lines().stream()
                        .map(l -> l.change().name()))
                .containsExactly(changes.split(","));
        assertThat(HandOver.between(List.of(short_(before)), List.of(short_(now)))
                        .count(Change.GONE))
                .isEqualTo(changes.startsWith("GONE") ? 1 : 0);
    }

    private static RegistryEntry short_(String text) {
        String[] p = text.split(" ");
        return entry(p[0], "00:00:5E:00:53:" + p[1], "10.0.0." + p[2]);
    }
}
