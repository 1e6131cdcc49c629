package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.reach.Verification.CheckRun;
import app.knottag.core.reach.Verification.Observation;
import app.knottag.core.status.Status;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** What a proof belongs to, how strong it is, and when the person on site and the office can sign. */
class VerificationTest {

    private static final Instant NOW = Instant.parse("2026-06-01T10:00:00Z");
    private static final List<Check> ALL = List.of(Check.values());
    private static final ProofBasis THEN = new ProofBasis(
            "Front counter",
            "F-01",
            "Shop switch 3",
            "00:00:5E:00:53:11",
            "OC2-7H41-0031",
            "10.44.16.51",
            7451,
            "Till 1 at 10.44.16.31",
            "FIXED /24 10.44.16.1",
            0,
            0);

    private static ProofBasis changed(String what) {
        return new ProofBasis(
                what.equals("place") ? "Yard" : THEN.place(),
                what.equals("outlet") ? "F-09" : THEN.outlet(),
                what.equals("port") ? "" : THEN.port(),
                what.equals("mac") || what.equals("unit") ? "00:00:5E:00:53:12" : THEN.mac(),
                what.equals("unit") ? "OC2-7H41-0032" : THEN.serial(),
                what.equals("address") ? "10.44.16.61" : THEN.address(),
                what.equals("service port") ? 7461 : THEN.servicePort(),
                what.equals("partner") ? "Till 2 at 10.44.16.32" : THEN.partner(),
                what.equals("settings") ? "FIXED /24 10.44.16.254" : THEN.settings(),
                what.equals("reset") ? 1 : 0,
                what.equals("moved") ? 1 : 0);
    }

    private static CheckRun run(Check... failing) {
        var results = new ArrayList<CheckResult>();
        for (var check : ALL)
            if (check.byMachine())
                results.add(new CheckResult(
                        check,
                        List.of(failing).contains(check) ? Status.FAILED : Status.PASSED,
                        "seen",
                        "",
                        "this machine",
                        NOW,
                        3));
        return new CheckRun(results, THEN, "Joris");
    }

    private static Observation saw(Check check, int outcome, Evidence evidence, Instant at) {
        return new Observation(check, check.outcomes().get(outcome), "So it is", evidence, at, "Joris", THEN);
    }

    /** Everything that people look at, except some, seen by somebody a moment ago. */
    private static List<Observation> observations(Evidence evidence, Check... except) {
        return ALL.stream()
                .filter(c -> !c.byMachine() && !List.of(except).contains(c))
                .map(c -> saw(c, 0, evidence, NOW))
                .toList();
    }

    private static Verification line(ProofBasis now) {
        return Verification.of(ALL, Optional.of(run()), observations(Evidence.SEEN), now, NOW);
    }

    @DisplayName("A change loosens exactly the proofs that rest on it, and says why")
    @ParameterizedTest(name = "{0} keeps {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "nothing      | LINK ADDRESS_SHOWN ANSWERS WHO_ANSWERS GATEWAY NAMES PORT_OPEN SERVICE PARTNER "
                        + "DEVICE_TO_PARTNER FAR_SERVICE REAL_JOB AFTER_RESTART REFUSED OFFICE | -",
                "place        | ADDRESS_SHOWN AFTER_RESTART REFUSED                        | It moved since, from Front counter to Yard.",
                "outlet       | ADDRESS_SHOWN AFTER_RESTART REFUSED                        | It has another outlet since: F-09, was F-01.",
                "port         | ADDRESS_SHOWN AFTER_RESTART REFUSED                        | It has another port since: "
                        + "none, was Shop switch 3.",
                "moved        | ADDRESS_SHOWN AFTER_RESTART REFUSED                        | It moved since.",
                "mac          | GATEWAY NAMES FAR_SERVICE                                  | Its MAC on record is "
                        + "another since: 00:00:5E:00:53:12, was 00:00:5E:00:53:11.",
                "unit         | GATEWAY NAMES FAR_SERVICE                                  | Another unit stands here "
                        + "since: serial OC2-7H41-0032, was OC2-7H41-0031.",
                "reset        | LINK GATEWAY NAMES FAR_SERVICE                             | It was reset since.",
                "address      | LINK GATEWAY NAMES FAR_SERVICE REFUSED                     | Its address is another "
                        + "since: 10.44.16.61, was 10.44.16.51.",
                "service port | LINK ADDRESS_SHOWN ANSWERS WHO_ANSWERS GATEWAY NAMES DEVICE_TO_PARTNER FAR_SERVICE "
                        + "REFUSED | Its service port is another since: 7461, was 7451.",
                "partner      | LINK ADDRESS_SHOWN ANSWERS WHO_ANSWERS GATEWAY NAMES PORT_OPEN SERVICE FAR_SERVICE "
                        + "AFTER_RESTART REFUSED | Its partner is another since, or has another address.",
                "settings     | LINK ADDRESS_SHOWN WHO_ANSWERS REFUSED                     | Its mask, gateway, "
                        + "resolvers or method are others since.",
            })
    void loosens(String what, String kept, String reason) {
        var line = line(changed(what));
        assertThat(line.checks().stream()
                        .filter(r -> r.status() != Status.PENDING)
                        .map(r -> r.check().name())
                        .collect(Collectors.joining(" ")))
                .isEqualTo(kept);
        if (what.equals("nothing")) assertThat(line.missing()).isEmpty();
        else {
            assertThat(line.checks())
                    .filteredOn(r -> r.status() == Status.PENDING)
                    .isNotEmpty()
                    .allSatisfy(r -> assertThat(r.loosened()).isEqualTo(reason));
            assertThat(line.missing()).isPresent();
        }
    }

    @DisplayName("What a proof rests on is another exactly when a change loosens it")
    @ParameterizedTest
    @ValueSource(
            strings = {
                "place",
                "outlet",
                "port",
                "mac",
                "unit",
                "address",
                "service port",
                "partner",
                "settings",
                "reset",
                "moved",
                "nothing"
            })
    void restsOn(String what) {
        var now = changed(what);
        for (var check : ALL)
            assertThat(THEN.restsOn(check).equals(now.restsOn(check)))
                    .as(check + " after " + what)
                    .isEqualTo(THEN.loosens(check, now).isEmpty());
    }

    @DisplayName("What was not known yet is only noted, and loosens nothing")
    @Test
    void noted() {
        var before = new ProofBasis(
                "", "", "", THEN.mac(), THEN.serial(), THEN.address(), 7451, THEN.partner(), THEN.settings(), 0, 0);
        assertThat(before.loosens(Check.REAL_JOB, THEN)).isEmpty();
    }

    @DisplayName("A check passes only while all below it do")
    @Test
    void aboveTheUntried() {
        var line =
                Verification.of(ALL, Optional.of(run()), observations(Evidence.SEEN, Check.ADDRESS_SHOWN), THEN, NOW);
        assertThat(line.checks().get(0).status()).isEqualTo(Status.PASSED);
        assertThat(line.checks().get(1).status()).isEqualTo(Status.PENDING);
        assertThat(line.checks().subList(2, line.checks().size()))
                .extracting(CheckStatus::status)
                .containsOnly(Status.ACTIVE);
    }

    @DisplayName("The grade is as good as what was seen, by whom and when")
    @ParameterizedTest(name = "{0}, without {1}, {2} days ago: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "SEEN      |               | 0  | FIRM",
                "READ_BACK |               | 40 | FIRM",
                "SEEN      | LINK          | 0  | FAIR",
                "SEEN      | LINK          | 40 | THIN",
                "SPOKEN    |               | 0  | THIN",
                "SEEN      | REAL_JOB      | 0  | NONE",
                "SEEN      | REFUSED       | 0  | NONE",
                "SEEN      | AFTER_RESTART | 0  | FAIR",
                "SEEN      | OFFICE        | 0  | FIRM",
            })
    void grades(Evidence evidence, String without, int days, Grade grade) {
        var except = without == null ? new Check[0] : new Check[] {Check.valueOf(without)};
        var line = Verification.of(
                ALL, Optional.of(run()), observations(evidence, except), THEN, NOW.plus(Duration.ofDays(days)));
        assertThat(line.grade()).isEqualTo(grade);
        assertThat(grade.handsOver()).isEqualTo(grade == Grade.FIRM || grade == Grade.FAIR);
    }

    @DisplayName("Here and the office are compared, and the difference means something")
    @ParameterizedTest(name = "here {0}, office {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "holds | REACHED     | Here and at the office it holds.",
                "holds | NOT_REACHED | It works here, and the office does not reach it: the way between, or an address "
                        + "that is wrong there.",
                "fails | REACHED     | The office reaches something that does not hold here: compare the MAC, another "
                        + "unit may answer there.",
                "fails | NOT_REACHED | Neither here nor at the office: settle it here first.",
                "holds |             |",
            })
    void apart(String here, Outcome office, String words) {
        var seen = new ArrayList<>(observations(Evidence.SEEN, Check.OFFICE));
        if (office != null)
            seen.add(saw(Check.OFFICE, Check.OFFICE.outcomes().indexOf(office), Evidence.SEEN, NOW.plusSeconds(1)));
        var line =
                Verification.of(ALL, Optional.of(here.equals("fails") ? run(Check.SERVICE) : run()), seen, THEN, NOW);
        assertThat(line.apart().orElse(null)).isEqualTo(words);
        if (here.equals("fails")) assertThat(line.missing()).contains("“Its service answers” does not hold.");
    }

    @DisplayName("The latest of what people saw counts, and what fails says so")
    @Test
    void theLatestCounts() {
        var seen = new ArrayList<>(observations(Evidence.SEEN));
        seen.add(0, saw(Check.REFUSED, 1, Evidence.SEEN, NOW.plusSeconds(5)));
        var line = Verification.of(ALL, Optional.of(run()), seen, THEN, NOW.plusSeconds(9));
        assertThat(line.failed()).isTrue();
        assertThat(line.missing()).contains("“It refuses what it must” does not hold.");
        assertThat(Verification.of(ALL, Optional.empty(), List.of(), THEN, NOW).missing())
                .contains("“The address answers” was not checked yet.");
        assertThat(Arrays.stream(Check.values()).filter(c -> !c.byMachine()))
                .allSatisfy(c -> assertThat(c.outcomes()).hasSizeGreaterThan(1));
    }
}
