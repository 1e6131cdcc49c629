package app.knottag.core.audit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.WayBack.Away;
import app.knottag.core.audit.WayBack.Pointing;
import app.knottag.core.audit.WayBack.Way;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.Method;
import app.knottag.core.runbook.Runbook;
import app.knottag.core.runbook.StepRecord;
import app.knottag.core.status.Status;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.time.ZoneOffset;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class WayBackTest {

    private static final SiteClock CLOCK = new SiteClock(AuditTest.NOW, ZoneOffset.UTC, DateStyle.WORDS);
    /** So many minutes, and nobody can say who else calls it. */
    private static final int UNKNOWN = 2;

    /** So many minutes, and no step of its runbook is done yet. */
    private static final int NOT_ENTERED = 3;

    private static final Instant HELD = Instant.parse("2026-11-09T12:00:00Z");

    private static WayBack back(String kind, Method method, String at, boolean held, int minutes, String... alike) {
        var whole = Kinds.shipped().get(kind);
        return WayBack.of(
                new Away(
                        AuditTest.at("51"),
                        at.startsWith("169") ? Ipv4Address.parse(at) : AuditTest.at(at),
                        method,
                        Optional.of(HELD).filter(h -> held),
                        HELD.plusSeconds(86_400),
                        List.of(alike),
                        ""),
                AuditTest.SEGMENTS,
                whole,
                minutes == NOT_ENTERED ? Runbook.of(whole, Map.of()) : done(whole),
                new Pointing(
                        List.of("Desk computer: the scanner's address"),
                        minutes,
                        minutes == UNKNOWN ? List.of("Workstations call it.") : List.of()),
                CLOCK);
    }

    private static Runbook done(Kind kind) {
        return Runbook.of(
                kind,
                kind.steps().stream()
                        .map(Kind.Step::key)
                        .collect(Collectors.toMap(
                                k -> k,
                                k -> new StepRecord(
                                        k,
                                        Status.PASSED,
                                        Optional.empty(),
                                        Optional.empty(),
                                        Map.of(),
                                        List.of(),
                                        "",
                                        "Imke",
                                        0,
                                        0))));
    }

    /** Written by hand from practice before the code ran: .51 is planned, .100 to .199 are handed out, 1.x is the next network. */
    @ParameterizedTest(name = "{0} at {1}, held {2}, {3} min to tell the others: {4}")
    @CsvSource(
            delimiter = '|',
            value = {
                "FIXED     | 120   | true  | 5  | RESET      | REDO_RESET REPOINT",
                "LEARNED   | 120   | true  | 5  | RESET      | REDO_RESET REPOINT",
                "FIXED     | 120   | false | 5  | NEVER_TOOK | REDO_ADDRESS REPOINT",
                "FIXED     | 120   | false | 3  | NOT_YET    | GO_ON",
                // whoever stood there was set up, whatever the runbook says
                "FIXED     | 120   | true  | 3  | RESET      | REDO_RESET REPOINT",
                // the list keeps it, so nothing of the device is lost
                "RESERVED  | 120   | true  | 5  | LIST       | MEND_LIST REPOINT",
                "RESERVED  | 120   | false | 5  | LIST       | MEND_LIST REPOINT",
                "FIXED     | 77    | true  | 90 | RETYPED    | REDO_ADDRESS REPOINT",
                // nobody hands .77 out: when few call it, they are told sooner than it is typed
                "FIXED     | 77    | true  | 1  | RETYPED    | REPOINT REDO_ADDRESS",
                // it is not known to be quicker when nobody knows who calls it
                "FIXED     | 77    | true  | 2  | RETYPED    | REDO_ADDRESS REPOINT",
                "RESERVED  | 77    | false | 90 | RETYPED    | REDO_ADDRESS REPOINT",
                "AUTOMATIC | 120   | true  | 90 | LEASE      | REPOINT MEND_LIST",
                // in another network no address of this one will do, and none of that one either
                "FIXED     | 1.120 | true  | 1  | ELSEWHERE  | REDO_ADDRESS",
                "FIXED     | 1.51  | true  | 1  | ELSEWHERE  | PLUG_BACK",
                "RESERVED  | 1.120 | true  | 1  | ELSEWHERE  | PLUG_BACK",
                // an address that it gave itself is no network: it is on automatic, and nobody answered
                "FIXED     | 169.254.7.7 | true  | 1 | RESET      | REDO_RESET",
                "FIXED     | 169.254.7.7 | false | 1 | NEVER_TOOK | REDO_ADDRESS",
                "FIXED     | 169.254.7.7 | false | 3 | NOT_YET    | GO_ON",
                "RESERVED  | 169.254.7.7 | true  | 1 | NO_LEASE   | PLUG_BACK",
                "AUTOMATIC | 169.254.7.7 | true  | 1 | NO_LEASE   | PLUG_BACK",
            })
    void whatHappened(Method method, String at, boolean held, int minutes, WayBack.How how, String ways) {
        var back = back("document-scanner", method, at, held, minutes);
        assertThat(back.how()).isEqualTo(how);
        assertThat(back.ways().stream().map(w -> w.act().name()).collect(Collectors.joining(" ")))
                .isEqualTo(ways);
        assertThat(back.gone().isEmpty()).isEqualTo(how != WayBack.How.RESET);
    }

    @Test
    void aResetSaysWhatItIsToldFromAndWhatIsDoneAgain() {
        var back = back("document-scanner", Method.FIXED, "120", true, 5);
        assertThat(back.says())
                .isEqualTo("It was seen at 10.9.0.51 until " + CLOCK.moment(HELD)
                        + ", and at 10.9.0.120, which is handed out, since "
                        + CLOCK.moment(HELD.plusSeconds(86_400))
                        + ". Its own address stood in the device itself, so that is gone.");
        assertThat(back.surer()).contains("factory");
        assertThat(back.gone()).contains("The code of its page");
        assertThat(back.ways().get(0).steps())
                .startsWith("Enter the address", "Read it back", "Restart it", "Close what stands open")
                .doesNotContain("Read the label", "Wire it, power last");
        assertThat(back.ways().get(0).alone()).isEqualTo(1);
        // a leased address may go to another at any time
        assertThat(back.ways().get(1).before()).contains("may go to another");
    }

    /** A typed address loses no password; the steps that the reset alone undoes are not done again. */
    @Test
    void whatWasOnlyTypedIsOnlyTypedAgain() {
        assertThat(back("document-scanner", Method.FIXED, "77", true, 90)
                        .ways()
                        .get(0)
                        .steps())
                .contains("Enter the address", "Read it back", "Restart it")
                .doesNotContain("Close what stands open");
    }

    @Test
    void severalThatLeftTogetherShareACause() {
        var back = back("document-scanner", Method.FIXED, "120", true, 5, "Copier", "Clock", "Till", "Pad", "Door");
        assertThat(back.says())
                .endsWith("Within a day of it 5 others left theirs: Copier, Clock, Till, Pad and 1 more.");
        assertThat(back.surer()).startsWith("Look first for what they share");
    }

    /** Whatever the kind, each way names what is done, and takes its time. */
    @Test
    void everyKindHasAWayBack() {
        for (var kind : Kinds.shipped().all())
            for (var method : Method.values())
                for (String at : List.of("120", "77", "1.120", "169.254.7.7"))
                    assertThat(back(kind.id(), method, at, true, 5).ways())
                            .as("%s %s %s", kind.id(), method, at)
                            .allSatisfy(WayBackTest::whole);
    }

    private static void whole(Way way) {
        assertThat(way.steps()).isNotEmpty().doesNotHaveDuplicates();
        assertThat(way.minutes()).isPositive();
        assertThat(way.title()).isNotBlank();
    }
}
