package app.knottag.core.runbook;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.GateType;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Opening.Danger;
import app.knottag.core.plan.Method;
import app.knottag.core.runbook.EndpointContext.Other;
import app.knottag.core.runbook.GateForm.Input;
import app.knottag.core.runbook.Runbook.Pace;
import app.knottag.core.status.Status;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Instant;
import java.time.LocalDate;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class OwnGatesTest {

    private static final Kinds KINDS = Kinds.shipped();
    private static final ZoneId BERLIN = ZoneId.of("Europe/Berlin");
    /** 14:05:20 in Berlin, in summer. */
    private static final Instant NOW = Instant.parse("2026-06-10T12:05:20Z");

    private static final SiteClock CLOCK = new SiteClock(NOW, BERLIN, DateStyle.YEAR_FIRST);

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    private static EndpointPlan plan(Kind kind, Map<String, String> answers, Map<String, OpenState.Record> openings) {
        var around = new EndpointContext(
                Method.FIXED,
                "Kiosk 2",
                "pgb-kiosk2",
                "",
                Optional.of(2),
                Optional.empty(),
                Optional.empty(),
                Optional.empty(),
                answers,
                List.of(),
                new EndpointContext.Beside(
                        () -> List.of(
                                new Other(
                                        "Kiosk 3",
                                        "Table 3",
                                        Optional.of(Mac.parse("00:00:5E:00:53:3D")),
                                        "QS-30030",
                                        Optional.of(3)),
                                new Other("Kiosk 4", "", Optional.empty(), "", Optional.of(4))),
                        () -> Set.of("770012", "770013"),
                        EndpointContext.Beside.NOTHING.figures(),
                        EndpointContext.Beside.NOTHING.counted()),
                OpenState.of(kind, openings),
                CLOCK);
        return new EndpointPlan(
                Optional.of(a("10.44.16.54")),
                new Segment(
                        Ipv4Prefix.parse("10.44.16.0/24"),
                        Optional.of(a("10.44.16.1")),
                        List.of(new Pool(a("10.44.16.100"), a("10.44.16.199")))),
                List.of(a("10.44.16.1"), a("203.0.113.9")),
                Optional.of(Mac.parse("00:00:5E:00:53:2B")),
                Optional.of("QS-20017"),
                Set.of(),
                false,
                around);
    }

    private static Map<String, String> map(String text) {
        var map = new HashMap<String, String>();
        if (text != null)
            for (String pair : text.split("; ")) {
                int at = pair.indexOf('=');
                map.put(pair.substring(0, at).strip(), pair.substring(at + 1).strip());
            }
        return map;
    }

    @DisplayName("A gate opens for what was read, and says what to do when it does not")
    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                // the unit in hand
                "kiosk-set | label | unit=0017            |",
                "kiosk-set | label | unit=53:2b           |",
                "kiosk-set | label | unit=017             | Key in the last four of the serial or the MAC, from the label in your hand.",
                "kiosk-set | label | unit=0030            | “0030” is not the end of serial QS-20017 nor of MAC "
                        + "00:00:5E:00:53:2B. It is Kiosk 3, which belongs to Table 3.",
                "kiosk-set | label | unit=53-3D           | “533D” is not the end of serial QS-20017 nor of MAC "
                        + "00:00:5E:00:53:2B. It is Kiosk 3, which belongs to Table 3.",
                "kiosk-set | label | unit=9999            | “9999” is not the end of serial QS-20017 nor of MAC "
                        + "00:00:5E:00:53:2B. Nothing on record at this site ends like that.",
                // seals as sets
                "kiosk-set | seals | read=551802, 551801  |",
                "kiosk-set | seals | read=551801 55 1802  | Seal 551802 not found./Seals 1802, 55 nobody reported.",
                "kiosk-set | seals | read=551801 551807   | Seal 551807 was reported as 551802: one figure apart.",
                "kiosk-set | seals | read=551801          | Seal 551802 not found.",
                "kiosk-set | seals | read=551801 551802 900001 | Seal 900001 nobody reported.",
                "kiosk-set | seals | read=                | Seal numbers you read: this is missing.",
                "kiosk-set | case  | first=K-2; second=k-2 |",
                "kiosk-set | case  | first=K-2; second=K-3 | Number on the case is K-2, Number on the device is K-3.",
                "kiosk-set | pack-away | case=K-2; read=880001 880002 |",
                "kiosk-set | pack-away | case=K-3; read=880001 | This is case K-3; the device belongs into case K-2.",
                "kiosk-set | pack-away | case=K-2; read=770012 880001 | Seal 770012 was used before.",
                // names on both screens
                "kiosk-set | pad-name | first=Kiosk 2; second=kiosk 2 |",
                "kiosk-set | pad-name | first=Kiosk 2; second=Kiosk 3 | “Kiosk 3” is the name of another one, at Table "
                        + "3: the two are crossed.",
                "kiosk-set | pad-name | first=Kiosk 2; second=Kiosk 9 | One shows “Kiosk 2”, the other “Kiosk 9”.",
                "kiosk-set | peripherals | count=3 |",
                "kiosk-set | peripherals | count=2 | 2 is not enough: at least 3 needed.",
                "kiosk-set | peripherals | count=three | “three” is no whole number.",
                // lights
                "kiosk-set | router | steadiness=STEADY; colour=white |",
                "kiosk-set | router | steadiness=STEADY; colour=yellow | No uplink.",
                "kiosk-set | router | steadiness=OFF | No power.",
                "kiosk-set | router | steadiness=SLOW | Say what you see first.",
                "time-clock | start | steadiness=STEADY; colour=screen lit; beeps=3; beep=SHORT | Its memory is not read.",
                "time-clock | start | steadiness=STEADY; colour=screen lit; beeps=1 | Say whether the beeps were short or long.",
                // numbers along a row, and the set-up of the partner
                "kiosk-set | operator | NUMBER=2; NAME=pgb-kiosk2 |",
                "kiosk-set | operator | NUMBER=2 |",
                "kiosk-set | operator | NAME=pgb-kiosk2 | Operator number is not read yet.",
                "kiosk-set | operator | NUMBER=3 | Operator number: “3” instead of “2”. 3 is the number of Kiosk 3 (Table 3).",
                "kiosk-set | operator | NUMBER=5; NAME=pgb-kiosk5 | Operator number: “5” instead of “2”./Kiosk name: "
                        + "“pgb-kiosk5” instead of “pgb-kiosk2”.",
                "counter-payment-terminal | till-read-back | NUMBER=2; ADDRESS=10.44.16.54; SERVICE_PORT=7400 |",
                "counter-payment-terminal | till-read-back | NUMBER=2; ADDRESS=10.44.16.45; SERVICE_PORT=7004 | Terminal "
                        + "address: Two figures swapped in the last group: 45 typed, 54 planned./Terminal port: “7004” "
                        + "instead of “7400”.",
                "counter-payment-terminal | code | first=4711; second=4711 |",
                "counter-payment-terminal | code | first=4711; second=4171 | Code on the till is 4711, Code on the terminal is 4171.",
                "fax-adapter | service-read-back | SERIAL=qs 20017; MAC=0000.5e00.532b; MODEL=FA-1P |",
                "fax-adapter | service-read-back | SERIAL=QS-20071; MODEL=FA-1 | Model: “FA-1” instead of “FA-1P”./Serial: "
                        + "“QS-20071” instead of “QS-20017”./MAC is not read yet.",
                "till-pin-pad | sound-read-back | Volume=8 |",
                "till-pin-pad | sound-read-back | Volume=0 | Volume: “0” instead of “8”.",
                // variants
                "time-clock | variant | model=tk 40 |",
                "time-clock | variant | model=TK-40S | TK-40S is the wrong variant: same front, serial line only; it "
                        + "has no network socket.",
                "time-clock | variant | model=TK-40X | TK-40X looks like TK-40, and is another variant: it ends in “X” "
                        + "instead of “”. Look at the label on the underside.",
                // who may do it
                "time-clock | supply | seen=right; person=Lore Winter |",
                "time-clock | supply | seen=right | This is done by a qualified electrician, and no name is on record.",
                // its clock, 14:05:20 in Berlin
                "time-clock | clock | shown=2026-06-10 14:05 |",
                "time-clock | clock | shown=10.06.2026 14:06:10 |",
                "time-clock | clock | shown=2026-06-10 13:05:20 | 60 min behind: its summer time is off, or its zone is one too far west.",
                "time-clock | clock | shown=2026-06-10 12:05 | 2 h behind: whole hours, so its zone is wrong, not its clock.",
                "time-clock | clock | shown=2026-06-10 14:08:20 | 3 min ahead: it drifts. Nothing fails yet; times on "
                        + "record are off by that much.",
                "time-clock | clock | shown=2026-06-10 14:25:20; lastRight=2026-05-31 | 20 min ahead: certificates and "
                        + "sign-ins fail with that, and times on record are wrong. Records since 2026-05-31 may be off "
                        + "by up to 20 min: about 2 min more each day, so 10 min on 2026-06-05.",
                "time-clock | clock | shown=2026-06-11 14:05:20 | 24 h ahead: the hour is right and the day is not.",
                "time-clock | clock | shown=quarter past two | “quarter past two” is no date and time.",
                "time-clock | clock | shown=2026-02-30 14:05 | There is no day 30 in February 2026.",
                // drives and the pin in the small hole
                "storage-box | release | drives=WX1 WX2; onThem=SAVED; owner=Mr Ott |",
                "storage-box | release | drives=WX1; onThem=UNKNOWN; owner=Mr Ott | Nobody knows what is on WX1, and "
                        + "everything on them is wiped.",
                "storage-box | release | drives=WX1; onThem=NEW | Who releases them for wiping, in writing: this is missing.",
                "storage-box | array | drives/0/name=A; drives/0/size=4; drives/1/name=B; drives/1/size=4 |",
                "storage-box | array | drives/0/name=A; drives/0/size=4; drives/1/name=B; drives/1/size=4; typed=8 | "
                        + "More than there is: 4 TB at most.",
                // what was counted at another step stands over what was keyed in
                "watched-outlet | times | start=20; pause=60; count@boot-time=200; count@names=3 | It cuts every start of "
                        + "the router short until it gives up: the router needs 3 min 20 s, and is switched off again "
                        + "after 3 min.",
                "watched-outlet | times | start=20; pause=60; count@boot-time=100; count@names=3 |",
                "door-reader | supply | supply=1; parts/0/name=Reader; parts/0/hold=0.25; parts/0/volts=24 | Reader wants "
                        + "24 V, and the supply gives 12 V: it will not work, or only at times.",
                "storage-box | reset | seconds=5; beeps=1 |",
                "storage-box | reset | seconds=2; beeps=0 | 0 beeps, and it should be 1. Held too short: nothing was reset.",
                "storage-box | reset | seconds=20; beeps=1 | 20 s is far longer than 4 to 6 s. Held that long it clears "
                        + "the whole system and asks for the drives to be set up anew.",
            })
    void judges(String kindId, String step, String evidence, String message) {
        var kind = KINDS.get(kindId);
        var plan = plan(kind, Map.of("seals", "551801 551802", "case-number", "K-2"), Map.of());
        var keyedIn = map(evidence);
        var beside = plan.around().beside();
        plan = plan.with(plan.around()
                .with(new EndpointContext.Beside(
                        beside.others(),
                        beside.usedSeals(),
                        sheet -> keyedIn,
                        counted -> Optional.ofNullable(keyedIn.get("count@" + counted)))));
        assertThat(GateJudge.judge(kind, kind.step(step), plan, keyedIn))
                .extracting(StepRecord.StepFinding::message)
                .isEqualTo(message == null ? List.of() : List.of(message.split("/")));
    }

    @DisplayName("A size is typed whole, as kinds of somebody's own may ask for")
    @ParameterizedTest(name = "{1} of {0}")
    @CsvSource({
        "3726, 3726, ",
        "3726, 3700, 26 is left over and nobody can use it later.",
        "3726, 3762, The size is larger than the largest possible by 36.",
        "3726, all, “all” is no whole number.",
    })
    void size(String maximum, String typed, String message) {
        var kind = KINDS.get("storage-box");
        var step = new Kind.Step(
                "size", "Size", List.of(), "", Map.of(), Optional.empty(), new Kind.Gate(GateType.SIZE, "", List.of()));
        var plan = plan(kind, Map.of(), Map.of());
        assertThat(GateJudge.judge(kind, step, plan, Map.of("maximum", maximum, "typed", typed)))
                .extracting(StepRecord.StepFinding::message)
                .isEqualTo(message == null ? List.of() : List.of(message));
    }

    @DisplayName("What the DHCP server gave is compared before anything is typed")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "ADDRESS=10.44.16.131; MASK=255.255.255.0; GATEWAY=10.44.16.1 |",
                "ADDRESS=10.44.17.131; MASK=255.255.255.0; GATEWAY=10.44.17.1 | Address 10.44.17.131, planned "
                        + "10.44.16.54. It is in another network: wrong socket, VLAN or site.",
                "ADDRESS=10.44.16.131; MASK=255.255.0.0; GATEWAY=10.44.16.1 | Mask 255.255.0.0, planned 255.255.255.0. "
                        + "It contradicts the plan: another network, or the plan is old. Settle that first.",
                "ADDRESS=10.44.16.5.7; MASK=255.255.255.0; GATEWAY=10.44.16.1 | Five groups of figures: 10.44.16.5.7. A resolver has four.",
                "ADDRESS=10.44.16.131; GATEWAY=10.44.16.1 | Mask: this is missing.",
            })
    void learned(String evidence, String message) {
        var around = RecipeTest.around(Method.LEARNED, Map.of(), false);
        var kind = Recipe.of(KINDS.get("label-printer"), around).kind();
        var found = GateJudge.judge(kind, kind.step("learn"), plan(kind, Map.of(), Map.of()), map(evidence));
        if (message == null) assertThat(found).isEmpty();
        else assertThat(found.get(0).message()).startsWith(message);
    }

    @DisplayName("Field by field: which to leave, which to change")
    @Test
    void learnedFieldByField() {
        var plan = plan(KINDS.get("label-printer"), Map.of(), Map.of());
        var given = map(
                "ADDRESS=10.44.16.131; MASK=255.255.255.0; GATEWAY=10.44.16.1; RESOLVER_1=10.44.16.1; RESOLVER_2=10.44.16.7");
        assertThat(LearnedLease.compare(plan, given))
                .extracting(l -> l.field() + " " + l.act())
                .containsExactly("Address CHANGE", "Mask KEEP", "Gateway KEEP", "Resolver 1 KEEP", "Resolver 2 CHANGE");
        given.remove("GATEWAY");
        assertThat(LearnedLease.compare(plan, given)).as("not whole").isEmpty();
    }

    @DisplayName("Nothing stands open without an owner and an end; the worst comes first")
    @Test
    void openings() {
        var kind = KINDS.get("storage-box");
        var today = LocalDate.of(2026, 6, 10);
        var records = new HashMap<String, OpenState.Record>();
        assertThat(judgeOpenings(kind, records))
                .containsExactly(
                        "Guessing without end stands open.",
                        "Factory administrator awake stands open.",
                        "Firewall open stands open.",
                        "One account for everybody at its share stands open.",
                        "Whole subnet on the allow list stands open.",
                        "Its page without encryption stands open.");
        for (String key : List.of("lockout", "one-account", "plain-page"))
            records.put(key, record(key, "", null, true));
        records.put("factory-administrator", record("factory-administrator", "", null, true));
        records.put("firewall-open", record("firewall-open", "Joris", today, false));
        records.put("allow-list", record("allow-list", "Joris", today.minusDays(1), false));
        assertThat(judgeOpenings(kind, records))
                .containsExactly(
                        "Whole subnet on the allow list stands open longer than it may: Joris had until 2026-06-09.");
        assertThat(OpenState.holdUp(OpenState.of(kind, records), CLOCK))
                .containsExactly(
                        "Firewall open: Joris closes it by 2026-06-10.",
                        "Whole subnet on the allow list: Joris closes it by 2026-06-09, which has passed.");
        records.put(
                "guest",
                new OpenState.Record("guest", Danger.NO_PASSWORD, "Guest share", "", Optional.empty(), false, ""));
        assertThat(OpenState.of(kind, records).get(0).title())
                .as("worst of the open ones")
                .isEqualTo("Guest share");
    }

    private static OpenState.Record record(String key, String owner, LocalDate ends, boolean closed) {
        return new OpenState.Record(key, Danger.OTHER, "", owner, Optional.ofNullable(ends), closed, "");
    }

    private static List<String> judgeOpenings(Kind kind, Map<String, OpenState.Record> records) {
        return GateJudge.judge(kind, kind.step("secure"), plan(kind, Map.of(), records), Map.of()).stream()
                .map(StepRecord.StepFinding::message)
                .toList();
    }

    @DisplayName("Words of the menu may go unread, but not be other than they should")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "Automatic=off | ",
                "Automatic=On | Automatic: “On” instead of “Off”.",
                "Device number=7 | Device number: “7” instead of “1”, which it has from the factory.",
            })
    void wordsReadBack(String evidence, String message) {
        var kind = Recipe.of(KINDS.get("time-clock"), EndpointContext.NONE).kind();
        var all = map("ADDRESS=10.44.16.54; MASK=255.255.255.0; GATEWAY=10.44.16.1; RESOLVER_1=10.44.16.1");
        all.putAll(map(evidence));
        assertThat(GateJudge.judge(kind, kind.step("read-back"), plan(kind, Map.of(), Map.of()), all))
                .extracting(StepRecord.StepFinding::message)
                .isEqualTo(message == null ? List.of() : List.of(message));
    }

    @DisplayName("A call sheet scores what was repeated, and names the slip")
    @Test
    void callSheet() {
        var kind = Recipe.of(KINDS.get("time-clock"), EndpointContext.NONE).kind();
        var plan = plan(kind, Map.of(), Map.of());
        var sheet = CallSheet.score(
                TypeSheet.of(kind, plan), plan, map("ADDRESS=10.44.16.45; MASK=255.255.255.0; GATEWAY=10 44 16 1"));
        assertThat(sheet.right()).isEqualTo(2);
        assertThat(sheet.of()).isEqualTo(4);
        assertThat(sheet.fields())
                .extracting(CallSheet.ServiceReply::message)
                .containsExactly("Two figures swapped in the last group: 45 typed, 54 planned.", "", "", "");
        assertThat(sheet.fields().get(3).heard()).isFalse();
    }

    @DisplayName("Numbers and names are dictated sign by sign, and scored like figures")
    @ParameterizedTest(name = "{0} {1} as {3}: {4}")
    @CsvSource(
            delimiter = '|',
            value = {
                "partner | SERVICE_PORT | seven four zero zero | 7400          | ''",
                "partner | SERVICE_PORT | seven four zero zero | seven four double oh | ''",
                "partner | SERVICE_PORT | seven four zero zero | 7040          | “7040” instead of “7400”.",
                "partner | NUMBER       | two                  | two           | ''",
                "service | SERIAL | quebec sierra dash two zero zero one seven | Quebec Sierra dash two zero zero one seven | ''",
                "service | MAC | zero zero/zero zero/five echo/zero zero/five three/two bravo | 00:00:5e:00:53:2b | ''",
                "service | MAC | zero zero/zero zero/five echo/zero zero/five three/two bravo | 00005E00532D | “00005E00532D” "
                        + "instead of “00:00:5E:00:53:2B”.",
                "sign-in | NAME | papa golf bravo dash kilo india oscar sierra kilo two | PGB-KIOSK2 | ''",
                "sign-in | NAME | papa golf bravo dash kilo india oscar sierra kilo two | pgb-kiosk3 | “pgb-kiosk3” "
                        + "instead of “pgb-kiosk2”.",
            })
    void spelled(String part, String field, String spoken, String repeated, String message) {
        var kinds = Map.of("partner", "counter-payment-terminal", "sign-in", "kiosk-set", "service", "fax-adapter");
        var kind = KINDS.get(kinds.get(part));
        var plan = plan(kind, Map.of(), Map.of());
        var rows = TypeSheet.of(kind, plan, part);
        assertThat(rows)
                .filteredOn(r -> r.field().name().equals(field))
                .singleElement()
                .satisfies(r -> assertThat(r.spoken()).containsExactly(spoken.split("/")));
        assertThat(CallSheet.score(rows, plan, Map.of(field, repeated)).fields())
                .filteredOn(CallSheet.ServiceReply::heard)
                .extracting(CallSheet.ServiceReply::message)
                .containsExactly(message);
    }

    @DisplayName("Restarts counted tell stuck from busy")
    @ParameterizedTest(name = "{0} restarts, {1}: {2}")
    @CsvSource({
        "0, TOO_EARLY, WAIT",
        "2, LATE, WAIT",
        "3, USUAL, GO_ON",
        "7, LATE, GO_ON",
        "8, LATE, LOOK",
        "15, USUAL, CALL",
        "1, TOO_LONG, LOOK",
        "5, TOO_LONG, LOOK"
    })
    void bootPattern(int restarts, Pace pace, BootPattern.Verdict verdict) {
        var wait = KINDS.get("counter-payment-terminal")
                .step("first-start")
                .waiting()
                .orElseThrow();
        assertThat(BootPattern.of(wait, restarts, pace).verdict()).isEqualTo(verdict);
    }

    @Test
    void threeFailuresInARowOfferWaysOut() {
        var record = StepRecord.untouched("wire");
        var failed = new StepRecord(
                "wire", Status.FAILED, Optional.empty(), Optional.empty(), Map.of(), List.of(), "", "", 0, 0);
        assertThat(record.wantsWaysOut()).isFalse();
        assertThat(failed.counting(2, 0).wantsWaysOut()).isFalse();
        assertThat(failed.counting(3, 0).wantsWaysOut()).isTrue();
    }

    @DisplayName("Every gate of every kind can be answered from its own form")
    @Test
    void everyGateHasItsForm() {
        for (var kind : KINDS.all())
            for (var step : kind.steps()) {
                var fields = GateForm.of(kind, step, plan(kind, Map.of(), Map.of())).stream()
                        .map(Input::field)
                        .toList();
                assertThat(fields).as(kind.id() + " " + step.key()).doesNotHaveDuplicates();
                switch (step.gate().type()) {
                    case CHOICE, TYPE_SHEET, READ_BACK, ADDRESS_SHOWN, CONFIRMED, WORKSHEET, OPENINGS ->
                        assertThat(fields).isSubsetOf(GateForm.PERSON);
                    default -> assertThat(fields).isNotEmpty();
                }
            }
    }

    @DisplayName("An hour ahead or behind has another reason in summer and in winter, on both halves of the earth")
    @ParameterizedTest(name = "{0} on {1}, shown {2}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "Europe/Berlin    | 2026-07-01T12:00:00Z | 2026-07-01T13:00 | 60 min behind: its summer time is off, or "
                        + "its zone is one too far west.",
                "Europe/Berlin    | 2026-07-01T12:00:00Z | 2026-07-01T15:00 | 60 min ahead: its zone is one too far "
                        + "east, or it adds summer time twice.",
                "Europe/Berlin    | 2026-01-15T12:00:00Z | 2026-01-15T14:00 | 60 min ahead: it keeps summer time in "
                        + "winter, or its zone is one too far east.",
                "Europe/Berlin    | 2026-01-15T12:00:00Z | 2026-01-15T12:00 | 60 min behind: its zone is one too far "
                        + "west; there is no summer time now.",
                "Australia/Sydney | 2026-01-15T02:00:00Z | 2026-01-15T12:00 | 60 min behind: its summer time is off, or "
                        + "its zone is one too far west.",
                "Australia/Sydney | 2026-07-01T02:00:00Z | 2026-07-01T13:00 | 60 min ahead: it keeps summer time in "
                        + "winter, or its zone is one too far east.",
                "Australia/Lord_Howe | 2026-01-15T02:00:00Z | 2026-01-15T12:30 | 30 min behind: its summer time is off, "
                        + "or its zone is one too far west.",
                "Asia/Kolkata     | 2026-07-01T06:30:00Z | 2026-07-01T11:00 | 60 min behind: whole hours, so its zone "
                        + "is wrong, not its clock.",
            })
    void anHourOff(String zone, Instant now, LocalDateTime shown, String words) {
        assertThat(ClockReading.of(shown, new SiteClock(now, ZoneId.of(zone), DateStyle.WORDS))
                        .words())
                .isEqualTo(words);
    }
}
