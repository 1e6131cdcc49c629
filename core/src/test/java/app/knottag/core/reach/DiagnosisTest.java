package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;
import static org.assertj.core.api.Assertions.within;

import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.NetworkState.Traits;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;
import org.junit.jupiter.params.provider.ValueSource;

class DiagnosisTest {

    private static final NetworkState WHOLE = DiagnosisBench.WHOLE;
    private static final FaultBook BOOK = FaultBook.shipped();

    static Stream<NetworkState> scenes() {
        var scenes = new ArrayList<NetworkState>();
        for (int bits = 0; bits < 16; bits++)
            scenes.add(
                    NetworkState.intended(new Traits((bits & 1) > 0, (bits & 2) > 0, (bits & 4) > 0, (bits & 8) > 0)));
        return scenes.stream();
    }

    private static List<Made> questions(String text) {
        return text.isBlank()
                ? List.of()
                : Arrays.stream(text.split(", "))
                        .map(t -> t.split("="))
                        .map(t -> new Made(Question.valueOf(t[0].strip()), FieldCases.outcome(t[1].strip())))
                        .toList();
    }

    @DisplayName("In the intended scene every look finds what is hoped for")
    @Test
    void intended() {
        scenes().forEach(scene -> {
            for (var question : Question.values())
                if (scene.possible(question))
                    assertThat(scene.observe(question)).as(question.name()).isZero();
        });
    }

    @DisplayName("Every cause shows somewhere, and a cause that cannot be here is not suspected")
    @Test
    void everyCauseShows() {
        for (var fault : Fault.values()) {
            if (fault == Fault.NOTHING) continue;
            var scene = fault.apply(WHOLE);
            assertThat(Arrays.stream(Question.values()).anyMatch(l -> scene.observe(l) > 0))
                    .as(fault.name())
                    .isTrue();
            assertThat(BOOK.of(fault).remedy()).as(fault.name()).isNotEmpty();
        }
        var alone = NetworkState.intended(new Traits(false, false, true, false));
        assertThat(Diagnosis.of(alone, BOOK, List.of()).suspects())
                .flatExtracting(Diagnosis.Suspect::faults)
                .contains(Fault.NO_POWER)
                .doesNotContain(Fault.NOT_REGISTERED, Fault.CROSSED_PAIR, Fault.UPLINK_DOWN);
    }

    @DisplayName("What was seen points where a good technician would point")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "NEIGHBOUR=two, PING=answers, PULL=answers, ADDRESS_SHOWN=planned     | HELD_BY_NEWER",
                "NEIGHBOUR=other, PING=answers, ADDRESS_SHOWN=in-use                    | HELD_BY_OLDER",
                "NEIGHBOUR=nobody, PING=silent, LINK=dark, POWER=off                    | NO_POWER",
                "NEIGHBOUR=nobody, PING=silent, GATEWAY=silent, VANTAGE=elsewhere       | OWN_VANTAGE",
                "NEIGHBOUR=nobody, LINK=lit, ADDRESS_SHOWN=planned, TRY_AUTOMATIC=foreign          | OUTLET_IN_OTHER_SEGMENT",
                "NEIGHBOUR=nobody, LINK=lit, ADDRESS_SHOWN=pool, AFTER_RESTART=pool, FIELDS=automatic, LEASES=leased | STILL_AUTOMATIC",
                "NEIGHBOUR=nobody, LINK=lit, ADDRESS_SHOWN=planned, SOCKET=wan          | WAN_SOCKET",
                "NEIGHBOUR=nobody, LINK=lit, ADDRESS_SHOWN=planned, REGISTRY=mistyped   | MISTYPED_AT_REGISTRY",
                "NEIGHBOUR=nobody, LINK=lit, ADDRESS_SHOWN=planned, RESTART_PING=answers | NOT_RESTARTED",
                "NEIGHBOUR=nobody, ADDRESS_SHOWN=slip, FIELDS=address                   | ADDRESS_SLIP",
                "NEIGHBOUR=right, PING=silent, FIELDS=mask                              | MASK_WRONG",
                "NEIGHBOUR=right, PING=answers, PORT=silent                             | DEVICE_FIREWALL",
                "NEIGHBOUR=right, PORT=refused, FIELDS=port                             | OTHER_PORT",
                "NEIGHBOUR=right, PORT=refused, FIELDS=nothing                          | SERVICE_OFF",
                "NEIGHBOUR=right, PORT=open, SERIAL=none, SCREEN=reacts                 | ALLOW_LIST",
                "NEIGHBOUR=other, SERIAL=other, LABEL=other                             | WRONG_UNIT",
                "NEIGHBOUR=right, SERIAL=strange, MODEL=other                           | WRONG_VARIANT",
                "NEIGHBOUR=sibling, PING=answers, SERIAL=right                          | OTHER_INTERFACE_ON_RECORD",
                "SERIAL=right, PARTNER_TEST=other, PAIR_NAME=other                      | CROSSED_PAIR",
                "SERIAL=right, PARTNER_TEST=none, DEVICE_TEST=reaches                   | PARTNER_POINTS_ELSEWHERE",
                "SERIAL=right, PARTNER_TEST=none, DEVICE_TEST=fails                     | PARTNER_DOWN",
                "SERIAL=right, PARTNER_TEST=reaches, DEVICE_TEST=fails, FIELDS=nothing  | PARTNER_FIREWALL",
                "SERIAL=right, PARTNER_TEST=reaches, OUTSIDE=no, OTHERS_OUTSIDE=yes, FIELDS=gateway | GATEWAY_WRONG",
                "SERIAL=right, PARTNER_TEST=reaches, OUTSIDE=no, OTHERS_OUTSIDE=no, GATEWAY=answers | UPLINK_DOWN",
                "SERIAL=right, REAL_JOB=certificate, CLOCK=wrong                        | CLOCK_WRONG",
                "SERIAL=right, REAL_JOB=fails, OUTSIDE=yes, NAMES=found, PARTNER_TEST=reaches, DEVICE_TEST=reaches, "
                        + "OTHER_LINE=yes, RULES=through, LARGE=pass, BROWSE=page | PROVIDER_FILTER",
            })
    void points(String seen, Fault fault) {
        var verdict = Diagnosis.of(WHOLE, BOOK, questions(seen));
        assertThat(verdict.suspects().get(0).faults()).containsExactly(fault);
        assertThat(verdict.suspects().get(0).contradicts()).isEmpty();
    }

    @ParameterizedTest
    @MethodSource("scenes")
    void probabilitiesSumToOne(NetworkState scene) {
        for (var seen : List.of("", "PING=silent", "PING=silent, LINK=lit", "PING=answers, LINK=dark, POWER=off")) {
            var verdict = Diagnosis.of(scene, BOOK, questions(seen));
            double sum = verdict.suspects().stream().collect(Collectors.summingDouble(Diagnosis.Suspect::probability));
            assertThat(sum + verdict.noneOfThese()).isCloseTo(1, within(1e-9));
        }
    }

    @DisplayName("Two causes at once are weighed when none alone explains what was seen")
    @Test
    void twoAtOnce() {
        var verdict = Diagnosis.of(
                WHOLE,
                BOOK,
                questions(
                        "NEIGHBOUR=right, PING=answers, PORT=refused, FIELDS=port, OUTSIDE=no, OTHERS_OUTSIDE=no, GATEWAY=answers"));
        assertThat(verdict.suspects().get(0).faults()).containsExactlyInAnyOrder(Fault.OTHER_PORT, Fault.UPLINK_DOWN);
        assertThat(verdict.suspects().get(0).title())
                .isEqualTo("Its service listens on another port, and: The line is down");
        assertThat(verdict.contradictory()).isFalse();
    }

    @DisplayName("Answers that contradict one another are said to, with the one to ask again")
    @Test
    void contradictory() {
        var verdict = Diagnosis.of(
                WHOLE,
                BOOK,
                questions("POWER=off, LINK=lit, PING=answers, NEIGHBOUR=right, SERIAL=right, ADDRESS_SHOWN=planned"));
        assertThat(verdict.contradictory()).isTrue();
        assertThat(verdict.doubtful()).contains(Question.POWER);
    }

    @Test
    void whatCannotBeToldApartIsOneGroup() {
        var dark = Diagnosis.of(WHOLE, BOOK, questions("LINK=dark, POWER=on, OTHER_SOCKET=lit"));
        var first = dark.suspects().get(0);
        assertThat(dark.suspects().stream().filter(s -> s.group() == first.group()))
                .flatExtracting(Diagnosis.Suspect::faults)
                .contains(Fault.CABLE_OUT_AT_DEVICE, Fault.CABLE_OUT_AT_WALL, Fault.OUTLET_DEAD, Fault.PORT_OFF);
    }

    @DisplayName("It says when to stop and whom to call")
    @Test
    void stops() {
        var verdict = Diagnosis.of(
                WHOLE,
                BOOK,
                questions("NEIGHBOUR=right, SERIAL=right, PARTNER_TEST=reaches, DEVICE_TEST=reaches, GATEWAY=answers, "
                        + "OUTSIDE=no, OTHERS_OUTSIDE=no, NAMES=not-found, FIELDS=nothing"));
        assertThat(verdict.found()).isTrue();
        assertThat(verdict.stop()).isEqualTo("Stop here and call the provider: the line is down.");
        assertThat(verdict.next()).isEmpty();
        assertThatThrownBy(() -> new Made(Question.PING, Outcome.FULL))
                .hasMessage("“FULL” is nothing that PING can show; there are [ANSWERS, LOSSY, SILENT, UNREACHABLE]");
    }

    /** With each trait there and not there, and all of them. */
    static Stream<NetworkState> someScenes() {
        var all = scenes().toList();
        return Stream.of(0, 5, 10, 15).map(all::get);
    }

    @DisplayName("Every cause by itself, read without mistakes, ends in the first group")
    @ParameterizedTest
    @MethodSource("someScenes")
    void everyCauseIsFound(NetworkState scene) {
        for (var fault : Fault.values()) {
            if (!fault.shows(scene)) continue;
            var real = fault.apply(scene);
            var made = new ArrayList<Made>();
            DiagnosisBench.isolate(scene, real, null, made);
            var verdict = Diagnosis.of(scene, BOOK, made);
            int group = verdict.suspects().get(0).group();
            assertThat(verdict.suspects().stream().filter(s -> s.group() == group))
                    .as(fault + " after " + made)
                    .flatExtracting(Diagnosis.Suspect::faults)
                    .contains(fault);
        }
    }

    @DisplayName("With three misreadings in a hundred it is nearly always found, and looks are never repeated")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void noisy(long seed) {
        assertThat(new DiagnosisBench(seed).found(200)).isGreaterThan(0.85);
        var made = new ArrayList<Made>();
        DiagnosisBench.isolate(WHOLE, Fault.ALLOW_LIST.apply(WHOLE), new Random(seed), made);
        assertThat(made.stream().map(Made::question)).doesNotHaveDuplicates();
    }

    @DisplayName("The order of looks is never far from the best there is, on cases small enough to try all")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3})
    void nearlyOptimal(long seed) {
        var bench = new DiagnosisBench(seed);
        var result = bench.smallCases(40);
        assertThat(result.greedy() / result.optimal()).isBetween(1.0, 1.10);
    }

    @Test
    void farQuickerThanTheLadderFromTheBottomUp() {
        var result = new DiagnosisBench(4).againstLadder(300);
        assertThat(result.greedy()).isLessThan(result.optimal() / 2);
    }

    @Test
    void priorsArePartsOfAWhole() {
        Map<String, Double> sums = new HashMap<>();
        BOOK.faults().values().forEach(e -> {
            assertThat(e.prior()).isPositive();
            assertThat(e.reason()).isNotBlank();
            sums.merge("all", e.prior(), Double::sum);
        });
        assertThat(sums.get("all")).isBetween(50.0, 200.0);
    }

    @DisplayName(
            "When all is well nothing is wrong, and what nothing explains is none of these, however much is looked at")
    @Test
    void noneOfTheseAndNothingWrong() {
        var well = new ArrayList<Made>();
        for (var question : Question.values())
            if (WHOLE.possible(question))
                well.add(new Made(question, question.outcomes().get(0)));
        var fine = Diagnosis.of(WHOLE, BOOK, well);
        assertThat(fine.suspects().get(0).faults()).containsExactly(Fault.NOTHING);
        assertThat(fine.suspects().get(0).probability()).isGreaterThan(0.8);
        assertThat(fine.stop()).startsWith("Nothing is wrong now");
        var odd = new ArrayList<>(well);
        odd.add(new Made(Question.REAL_JOB, Outcome.FAILS));
        var none = Diagnosis.of(WHOLE, BOOK, odd);
        assertThat(none.noneOfThese()).isGreaterThan(0.4);
        assertThat(none.found()).isFalse();
        assertThat(none.stop()).startsWith("None of the known causes");
    }

    @DisplayName("A cause is not called found, nor anybody called, before its own look was made")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "NEIGHBOUR=right, SERIAL=right, PARTNER_TEST=reaches, FAR=silent, GATEWAY=answers, RESOLVER=answers, REAL_JOB=fails",
                "NEIGHBOUR=nobody, PING=silent, LINK=lit, ADDRESS_SHOWN=planned",
                "NEIGHBOUR=nobody, PING=silent, LINK=dark, POWER=on",
                "NEIGHBOUR=right, PING=answers, PORT=refused",
                "GATEWAY=answers, RESOLVER=empty, FAR=no-name",
            })
    void provedFirst(String seen) {
        var verdict = Diagnosis.of(WHOLE, BOOK, questions(seen));
        assertThat(verdict.found()).isFalse();
        assertThat(verdict.stop()).isEmpty();
        assertThat(verdict.next()).isPresent();
    }

    @DisplayName("Nobody is asked what an answer has made pointless; the same look counts once, the last time")
    @Test
    void pointlessAndAgain() {
        var made = new ArrayList<>(questions("NEIGHBOUR=nobody, PING=silent, POWER=off"));
        for (var next = Diagnosis.of(WHOLE, BOOK, made).next(); next.isPresent(); ) {
            assertThat(BOOK.pointless().get(new Answer(Question.POWER, Outcome.OFF)))
                    .doesNotContain(next.get().question());
            made.add(new Made(
                    next.get().question(), next.get().question().outcomes().get(0)));
            next = Diagnosis.of(WHOLE, BOOK, made).next();
        }
        var once = Diagnosis.of(WHOLE, BOOK, questions("LINK=lit, PLUGS=at-device"));
        var thrice = Diagnosis.of(WHOLE, BOOK, questions("LINK=dark, LINK=lit, PLUGS=at-device, LINK=lit"));
        assertThat(thrice.suspects().get(0)).isEqualTo(once.suspects().get(0));
        var told = Diagnosis.of(
                WHOLE,
                BOOK,
                List.of(new Made(Question.LINK, Outcome.DARK, Evidence.SPOKEN), new Made(Question.POWER, Outcome.OFF)));
        var seen = Diagnosis.of(WHOLE, BOOK, questions("LINK=dark, POWER=off"));
        assertThat(told.suspects().get(0).probability())
                .isLessThan(seen.suspects().get(0).probability());
    }
}
