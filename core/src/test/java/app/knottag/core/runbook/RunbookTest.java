package app.knottag.core.runbook;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.runbook.Runbook.Pace;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.runbook.StepRecord.StepFinding;
import app.knottag.core.status.Status;
import java.nio.charset.StandardCharsets;
import java.time.Instant;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class RunbookTest {

    private static final Kind TERMINAL = Recipe.of(
                    Kinds.shipped().get("counter-payment-terminal"), EndpointContext.NONE)
            .kind();
    private static final EndpointPlan PLAN = plan("10.44.16.54", "00:00:5E:00:53:2B", "OC2-7H41-0093", false);

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    private static EndpointPlan plan(String address, String mac, String serial, boolean confirmed) {
        var segment = new Segment(
                Ipv4Prefix.parse("10.44.16.0/24"),
                Optional.of(a("10.44.16.1")),
                List.of(new Pool(a("10.44.16.100"), a("10.44.16.199"))));
        return new EndpointPlan(
                Optional.ofNullable(address).map(Ipv4Address::parse),
                segment,
                List.of(a("10.44.16.1"), a("203.0.113.9")),
                Optional.ofNullable(mac).map(Mac::parse),
                Optional.ofNullable(serial),
                Set.of(),
                confirmed,
                EndpointContext.NONE);
    }

    private static List<StepFinding> judge(String step, Map<String, String> evidence) {
        return GateJudge.judge(TERMINAL, TERMINAL.step(step), PLAN, evidence);
    }

    @Test
    void theTypeSheetFollowsTheDevicesOwnMenu() {
        assertThat(TypeSheet.of(TERMINAL, PLAN))
                .extracting(r -> r.label() + ": " + r.value())
                .containsExactly(
                        "Method: Static",
                        "Speed: Auto",
                        "Address: 10.44.16.54",
                        "Mask: 255.255.255.0",
                        "Gateway: 10.44.16.1",
                        "Resolver 1: 10.44.16.1",
                        "Resolver 2: 203.0.113.9",
                        "Start with interface: Yes");
        assertThat(TypeSheet.of(TERMINAL, PLAN))
                .filteredOn(TypeSheet.SheetRow::leaveAlone)
                .extracting(TypeSheet.SheetRow::label)
                .containsExactly("Speed");
    }

    @DisplayName("A gate opens for what was seen, not for a tick")
    @ParameterizedTest(name = "{0} {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "unpack | whole  |",
                "unpack | broken | Broken, missing or scratched. Stop. Put it aside, do not connect it, and report it "
                        + "to the payment provider.",
                "unpack | ''     | Say what you see first.",
                "unpack | fine   | Say what you see first.",
                "first-start | restarting | Still restarting. Keep waiting. Past the longest time, take the power off "
                        + "for ten seconds, once.",
            })
    void choices(String step, String seen, String finding) {
        assertThat(judge(step, Map.of("seen", seen)))
                .extracting(f -> (f.message() + " " + f.remedy()).strip())
                .isEqualTo(finding == null ? List.of() : List.of(finding));
    }

    @DisplayName("The read-back names the slip in the field it was made in")
    @ParameterizedTest(name = "{0} = {1}: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "ADDRESS | 10.44.16.45  | Address: Two figures swapped in the last group: 45 typed, 54 planned.",
                "ADDRESS | 10.44.16.5.4 | Address: A period too many cuts 54 into 5.4.",
                "ADDRESS | ''           | Address: Nothing was typed. Type the address.",
                "MASK | 255.255.225.0   | Mask: A neighbouring key in the third group: 225 typed, 255 planned.",
                "GATEWAY | 10.44.16.11  | Gateway: A figure was keyed twice in the last group: 11 typed, 1 planned.",
                "RESOLVER_2 | 10.44.16.1 | Resolver 2: 10.44.16.1 is another value than the planned 203.0.113.9; no "
                        + "single slip explains it.",
            })
    void readBack(String field, String shown, String message) {
        var evidence = new HashMap<>(Map.of(
                "ADDRESS",
                "010.044.016.054",
                "MASK",
                "255.255.255.0",
                "GATEWAY",
                "10,44,16,1",
                "RESOLVER_1",
                "10.44.16.1",
                "RESOLVER_2",
                "203.0.113.9"));
        assertThat(judge("read-back", evidence)).isEmpty();
        evidence.put(field, shown);
        assertThat(judge("read-back", evidence)).singleElement().satisfies(f -> {
            assertThat(f.field()).isEqualTo(field);
            assertThat(f.message()).isEqualTo(message);
        });
    }

    @DisplayName("Words that were passed unread are named: nobody knows that they stand there")
    @ParameterizedTest(name = "{0}, {1}: {2}")
    @CsvSource(delimiter = '|', textBlock = """
            PASSED | ''                | Method, Speed, Start with interface
            PASSED | Speed=Auto        | Method, Start with interface
            PASSED | Method=Static     | Speed, Start with interface
            PENDING | ''               | ''
            SKIPPED | ''               | ''""")
    void unread(Status status, String read, String said) {
        var evidence = read.isEmpty() ? Map.<String, String>of() : Map.of(read.split("=")[0], read.split("=")[1]);
        var record = new StepRecord(
                "read-back", status, Optional.empty(), Optional.empty(), evidence, List.of(), "", "Imke", 0, 0);
        assertThat(String.join(", ", GateJudge.unread(TERMINAL, TERMINAL.step("read-back"), PLAN, record)))
                .isEqualTo(said);
        assertThat(GateJudge.unread(TERMINAL, TERMINAL.step("wire"), PLAN, record))
                .isEmpty();
    }

    @Test
    void anAddressFromThePoolAfterTheRestartMeansItWasNotSaved() {
        assertThat(judge("restart", Map.of("ADDRESS", "10.44.16.54"))).isEmpty();
        assertThat(judge("restart", Map.of("ADDRESS", "10.44.16.131")))
                .singleElement()
                .extracting(StepFinding::remedy)
                .asString()
                .startsWith("It is back on automatic: the address was not saved.");
        assertThat(judge("restart", Map.of("ADDRESS", "169.254.3.4")))
                .singleElement()
                .extracting(StepFinding::remedy)
                .asString()
                .startsWith("It is back on automatic");
    }

    @DisplayName("A wait is judged by the minutes it has run")
    @ParameterizedTest(name = "after {0} min: {1}")
    @CsvSource({
        "-3000, CLOCK_SET_BACK",
        "-1, TOO_EARLY",
        "0, TOO_EARLY",
        "19, TOO_EARLY",
        "20, USUAL",
        "54, USUAL",
        "55, LATE",
        "119, LATE",
        "120, TOO_LONG"
    })
    void pace(long minutes, Pace pace) {
        var start = Instant.parse("2026-05-04T08:00:00Z");
        assertThat(Runbook.pace(
                        TERMINAL.step("first-start").waiting().orElseThrow(), start, start.plusSeconds(minutes * 60)))
                .isEqualTo(pace);
    }

    private static Runbook runbook(int done, Status next) {
        var records = new HashMap<String, StepRecord>();
        for (int i = 0; i <= done && i < TERMINAL.steps().size(); i++) {
            String key = TERMINAL.steps().get(i).key();
            records.put(
                    key,
                    new StepRecord(
                            key,
                            i < done ? Status.PASSED : next,
                            Optional.empty(),
                            Optional.empty(),
                            Map.of(),
                            List.of(),
                            "",
                            "",
                            0,
                            0));
        }
        return Runbook.of(TERMINAL, records);
    }

    @DisplayName("An endpoint waits at the first station that has something left")
    @ParameterizedTest(name = "{0} {1}, {2} done then {3}: {6} {7}")
    @CsvSource(
            nullValues = "-",
            value = {
                "-, 00:00:5E:00:53:2B, 0, PENDING, false, false, PLAN, PENDING",
                "10.44.16.54, -, 0, PENDING, false, false, REGISTER, PENDING",
                "10.44.16.54, 00:00:5E:00:53:2B, 0, PENDING, false, false, ONBOARD, PENDING",
                "10.44.16.54, 00:00:5E:00:53:2B, 3, PENDING, false, false, ONBOARD, ACTIVE",
                "10.44.16.54, 00:00:5E:00:53:2B, 5, FAILED, false, false, ONBOARD, FAILED",
                "10.44.16.54, 00:00:5E:00:53:2B, 12, PENDING, false, false, CONFIRM, ACTIVE",
                "10.44.16.54, 00:00:5E:00:53:2B, 12, PENDING, true, false, CONFIRM, FAILED",
                "10.44.16.54, 00:00:5E:00:53:2B, 13, PENDING, true, true, CONFIRM, FAILED",
                "10.44.16.54, 00:00:5E:00:53:2B, 13, PENDING, false, true, HANDOVER, PASSED",
            })
    void standing(
            String address,
            String mac,
            int done,
            Status next,
            boolean failed,
            boolean confirmed,
            Station station,
            Status status) {
        var known = new Stage.Known(address != null, mac != null, confirmed, false, false);
        assertThat(Stage.of(known, runbook(done, next), failed, Stage.Entries.SETTLED))
                .isEqualTo(new Stage(station, status));
    }

    @DisplayName("Figures are dictated digit by digit, group by group")
    @ParameterizedTest(name = "“{0}”")
    @CsvSource(
            delimiter = '|',
            nullValues = "-",
            value = {
                "10.44.16.54   | one zero, four four, one six, five four",
                "255.255.255.0 | two five five, two five five, two five five, zero",
                "Static        | -",
                "10.44.16      | -",
                "''            | -",
            })
    void dictates(String figures, String words) {
        assertThat(Spoken.groups(figures)).isEqualTo(words == null ? List.of() : List.of(words.split(", ")));
    }

    @DisplayName("It is registered before it is set up, and never later than its label is read")
    @ParameterizedTest(name = "{0}, labelled {1}: {2} {3}")
    @CsvSource({
        "SETTLED, true, HANDOVER, PASSED",
        "HANDED_IN, true, REGISTER, ACTIVE",
        "TO_REGISTER, true, REGISTER, PENDING",
        "RAN_OUT, true, REGISTER, FAILED",
        "RAN_OUT, false, REGISTER, PENDING",
    })
    void standsByItsEntries(Stage.Entries entries, boolean labelled, Station station, Status status) {
        var known = new Stage.Known(true, labelled, true, false, false);
        assertThat(Stage.of(known, runbook(13, Status.PENDING), false, entries)).isEqualTo(new Stage(station, status));
    }

    @Test
    void aLaterStepIsBlockedByTheOnesBefore() {
        assertThat(runbook(4, Status.PENDING).current())
                .hasValueSatisfying(s -> assertThat(s.key()).isEqualTo("wire"));
        assertThat(runbook(4, Status.PENDING).blocking("address"))
                .containsExactly("Wire it, power last", "First start");
        assertThat(runbook(4, Status.PENDING).blocking("wire")).isEmpty();
    }

    @DisplayName("A faulty kind file is refused with file, line and reason")
    @ParameterizedTest(name = "{0} -> {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "version: 5 | version: one | line 2, column 10 | A whole number stands here.",
                "shortest: 20 | shortest: 90 | line | A wait needs shortest <= usual <= longest, was 90, 55, 120",
                "holds: true | holds: false | line | A choice needs an option that holds",
                "key: wire | key: label | line | Two steps are called “label”",
                "minutes: { wire: | minutes: { wires: | line | Minutes names “wires”, which is no step",
                "noun: | nuon: | line | There is no “nuon” here; there are",
            })
    void faultyKinds(String from, String to, String where, String why) throws Exception {
        String yaml;
        try (var in = Kinds.class.getResourceAsStream("/kinds/counter-payment-terminal.yaml")) {
            yaml = new String(in.readAllBytes(), StandardCharsets.UTF_8);
        }
        assertThatThrownBy(() -> Kinds.read(yaml.replace(from, to), "mine.yaml"))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessageStartingWith("mine.yaml")
                .hasMessageContaining(where)
                .hasMessageContaining(why);
    }

    @DisplayName("What is repeated over the phone is read in the words that were dictated")
    @ParameterizedTest(name = "“{0}”: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "one zero point four four point one six point five four     | 10.44.16.54",
                "one oh dot double four dot one six period five four        | 10.44.16.54",
                "10 point 44 point 16 point 54                              | 10.44.16.54",
                "two double five point two double five point two five five point zero | 255.255.255.0",
                "one one one point triple one point niner point seven       | 111.111.9.7",
                "10.44.16.54                                                | 10.44.16.54",
                "ten point forty-four                                       | ten point forty-four",
                "double                                                     | double",
                "double double four                                         | double double four",
            })
    void spokenFigures(String said, String figures) {
        assertThat(Spoken.figures(said)).isEqualTo(figures);
        // Whatever the sheet dictates is understood when it is repeated word for word.
        if (figures.matches("[0-9.]+"))
            assertThat(Spoken.figures(String.join(" point ", Spoken.groups(figures))))
                    .isEqualTo(figures);
    }
}
