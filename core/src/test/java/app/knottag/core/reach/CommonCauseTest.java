package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.knottag.core.reach.CommonCause.Common;
import app.knottag.core.reach.CommonCause.Member;
import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.FaultBook.Shared;
import app.knottag.core.reach.NetworkState.Joined;
import app.knottag.core.reach.NetworkState.Layout;
import app.knottag.core.reach.NetworkState.Traits;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Random;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class CommonCauseTest {

    private static final FaultBook BOOK = FaultBook.shipped();
    private static final NetworkState TILL =
            NetworkState.intended(new Traits(false, true, true, true, Joined.CABLE), Layout.USUAL);

    /** What is seen of one in a word. */
    private static final Map<String, String> SEEN = Map.of(
            "well", "VANTAGE=own GATEWAY=answers NEIGHBOUR=right PING=answers PORT=open SERIAL=right FAR=answers",
            "silent", "VANTAGE=own GATEWAY=answers NEIGHBOUR=nobody PING=silent PORT=silent",
            "cut-off", "VANTAGE=own GATEWAY=answers NEIGHBOUR=right PING=answers PORT=open RESOLVER=empty FAR=no-name",
            "far-down",
                    "VANTAGE=own GATEWAY=answers NEIGHBOUR=right PORT=open SERIAL=right RESOLVER=answers FAR=silent",
            "certificate", "VANTAGE=own GATEWAY=answers NEIGHBOUR=right PORT=open RESOLVER=answers FAR=certificate",
            "no-partner", "VANTAGE=own GATEWAY=answers NEIGHBOUR=right PORT=open SERIAL=right PARTNER_TEST=none",
            "elsewhere", "VANTAGE=elsewhere GATEWAY=silent PING=silent PORT=silent",
            "dark", "POWER=off",
            "no-job", "REAL_JOB=fails",
            "works", "REAL_JOB=done");

    /** Such as {@code Till 1 (SWITCH Shop switch, STRIP Counter) silent LINK=dark}. */
    private static Member member(String text) {
        int open = text.indexOf('('), close = text.indexOf(')');
        var on = new HashSet<>(Set.of(
                new Common(Shared.SITE, ""), new Common(Shared.SEGMENT, "Shop"), new Common(Shared.MACHINE, "")));
        for (var common : text.substring(open + 1, close).split(","))
            if (!common.isBlank()) {
                var parts = common.strip().split(" ", 2);
                on.add(new Common(Shared.valueOf(parts[0]), parts[1]));
            }
        var made = Arrays.stream(text.substring(close + 1).strip().split(" "))
                .flatMap(w -> Arrays.stream(SEEN.getOrDefault(w, w).split(" ")))
                .filter(w -> !w.isBlank())
                .map(w -> w.split("="))
                .map(w -> new Made(Question.valueOf(w[0]), FieldCases.outcome(w[1])))
                .toList();
        return new Member(text.substring(0, open).strip(), TILL, made, on);
    }

    private static List<Member> members(String text) {
        return Arrays.stream(text.split(";")).map(t -> member(t.strip())).toList();
    }

    @DisplayName("What fails together is one case where a technician would see one, and several where not")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "SWITCH_DEAD | Till 1 (SWITCH Shop switch) silent; Till 2 (SWITCH Shop switch) silent; Till 3 (SWITCH Shop switch) silent",
                "SWITCH_DEAD | Till 1 (SWITCH Shop switch) silent; Till 2 (SWITCH Shop switch) silent; Copier (SWITCH Office switch) well",
                "SWITCH_DEAD | Till 1 (SWITCH Shop switch, STRIP Counter) silent; Till 2 (SWITCH Shop switch, STRIP "
                        + "Counter) silent; Clock (SWITCH Shop switch, STRIP Door) silent",
                "SWITCH_CUT_OFF | Till 1 (SWITCH Shop switch) silent LINK=lit; Till 2 (SWITCH Shop switch) silent; Till "
                        + "3 (SWITCH Shop switch) silent",
                "ROW_POWER   | Till 1 (SWITCH Shop switch, STRIP Counter) silent; Till 2 (SWITCH Shop switch, STRIP "
                        + "Counter) silent; Clock (SWITCH Shop switch, STRIP Door) well",
                "ROW_POWER   | Till 1 (STRIP Counter) dark; Till 2 (STRIP Counter) dark; Clock (STRIP Door) works",
                "POWER_CUT   | Till 1 (STRIP Left) dark; Till 2 (STRIP Right) dark; Till 3 (STRIP Hall) dark",
                "            | Till 1 (STRIP Left) dark; Till 2 (STRIP Right) works; Till 3 (STRIP Hall) works",
                "UPLINK_DOWN | Till 1 (SWITCH Shop switch) cut-off; Clock (SWITCH Office switch) cut-off; Copier "
                        + "(SWITCH Office switch) cut-off",
                "UPLINK_DOWN | Till 1 () cut-off; Till 2 () cut-off",
                "SERVER_DOWN | Till 1 (SERVICE payments) far-down; Till 2 (SERVICE payments) far-down "
                        + "SERVICE_WORD=down; Clock (SERVICE times) well",
                "CERTIFICATE | Till 1 (SERVICE payments) certificate CLOCK=right; Till 2 (SERVICE payments) "
                        + "certificate; Clock (SERVICE times) well",
                "PARTNER_DOWN| Till 1 (PARTNER Workstation) no-partner DEVICE_TEST=fails; Till 2 (PARTNER Workstation) "
                        + "no-partner; Till 3 (PARTNER Other) well PARTNER_TEST=reaches",
                "OWN_VANTAGE | Till 1 (SWITCH Shop switch) elsewhere; Clock (SWITCH Office switch) elsewhere; Copier "
                        + "(SWITCH Cellar) elsewhere",
                "GATEWAY_WRONG | Till 1 (CHANGE Shop) well OUTSIDE=no OTHERS_OUTSIDE=yes; Till 2 (CHANGE Shop) well "
                        + "OUTSIDE=no FIELDS=gateway; Till 3 (CHANGE Shop) well OUTSIDE=no; Clock () well",
                "            | Till 1 (SWITCH Shop switch) silent; Clock (SWITCH Office switch) silent; Till 2 (SWITCH "
                        + "Shop switch) well; Copier (SWITCH Office switch) well",
                "            | Till 1 (SWITCH Shop switch) silent; Till 2 (SWITCH Shop switch) silent; Till 3 (SWITCH "
                        + "Shop switch) silent LEASES=leased",
                "            | Till 1 (SWITCH Shop switch) silent PLUGS=at-wall; Till 2 (SWITCH Shop switch) silent "
                        + "ADDRESS_SHOWN=slip LEASES=elsewhere LINK=lit; Till 3 (SWITCH Shop switch) well",
                "            | Till 1 (SWITCH Shop switch) silent POWER=off OTHERS_HERE=yes; Till 2 (SWITCH Shop "
                        + "switch) certificate CLOCK=wrong",
                "SWITCH_DEAD | Clock (SWITCH Shop switch) NEIGHBOUR=nobody PING=silent; Till 1 (SWITCH Shop switch) "
                        + "NEIGHBOUR=nobody PING=silent; Till 2 (SWITCH Shop switch) NEIGHBOUR=nobody PING=silent; "
                        + "Printer (SWITCH Office switch) NEIGHBOUR=nobody LEASES=leased; Till 3 (SWITCH Office switch) "
                        + "NEIGHBOUR=nobody LEASES=leased",
                "            | Till 1 (SWITCH Shop switch) well; Till 2 (SWITCH Shop switch) well",
            })
    void together(Fault fault, String devices) {
        var v = CommonCause.of(members(devices), BOOK);
        assertThat(v.oneCase()).as("%s", v).isEqualTo(fault != null);
        if (fault != null) assertThat(v.suspects().get(0).fault()).isEqualTo(fault);
        double sum =
                v.apart() + v.suspects().stream().collect(Collectors.summingDouble(CommonCause.Suspect::probability));
        assertThat(sum).isCloseTo(1, within(1e-9));
    }

    @DisplayName("It says who hangs on what, asks once for all of them, and is found only by the cause's own look")
    @Test
    void saysAndAsks() {
        String three =
                "Till 1 (SWITCH Shop switch) silent%1$s; Till 2 (SWITCH Shop switch) silent%1$s; Till 3 (SWITCH Shop "
                        + "switch) silent%1$s; Copier (SWITCH Office switch) well";
        var before = members(three.formatted(""));
        var v = CommonCause.of(before, BOOK);
        assertThat(CommonCause.says(before, v.suspects().get(0)))
                .isEqualTo("Till 1, Till 2 and Till 3 fail together: all hang on Shop switch.");
        assertThat(v.found()).isFalse();
        var alive = members(three.formatted("")
                + "; Till 4 (SWITCH Shop switch) silent LEASES=leased; Till 5 (SWITCH Shop switch) silent");
        assertThat(CommonCause.says(
                        alive, CommonCause.of(alive, BOOK).suspects().get(0)))
                .isEqualTo("Till 1, Till 2, Till 3 and Till 5 fail together: all hang on Shop switch.");
        assertThat(v.next().orElseThrow()).isEqualTo(new CommonCause.NextQuestion(Question.LINK, List.of(0)));
        var proved = CommonCause.of(members(three.formatted(" LINK=dark OTHERS_HERE=none-on-switch")), BOOK);
        assertThat(proved.found()).isTrue();
        var asked = CommonCause.of(members(three.formatted(" LINK=dark")), BOOK);
        assertThat(asked.next().orElseThrow())
                .isEqualTo(new CommonCause.NextQuestion(Question.OTHERS_HERE, List.of(0, 1, 2)));
        var once = CommonCause.of(
                members(three.formatted(" LINK=dark").replaceFirst("LINK", "OTHERS_HERE=none-on-switch LINK")), BOOK);
        assertThat(proved.suspects().get(0).probability())
                .isEqualTo(once.suspects().get(0).probability());
        var elsewhere = CommonCause.of(
                members("Till 1 () PING=silent GATEWAY=silent; Till 2 () PING=silent; Till 3 () PING=silent"), BOOK);
        assertThat(elsewhere.found()).as("%s", elsewhere).isFalse();
        var refuted = CommonCause.of(
                members(three.replace("Office switch", "Shop switch").formatted(" OTHERS_HERE=yes LINK=lit POWER=on")),
                BOOK);
        assertThat(refuted.oneCase()).as("%s", refuted).isFalse();
    }

    @DisplayName("Drawn at random by the book, what is said with a probability is true so often")
    @Test
    void calibrated() {
        var random = new Random(7);
        double said = 0, sure = 0;
        int right = 0, surelyRight = 0, cases = 0;
        while (cases < 300) {
            boolean dead = random.nextBoolean();
            var members = new ArrayList<Member>();
            for (int i = 0; i < 4; i++) {
                var state = dead ? Fault.SWITCH_DEAD.ways(TILL).get(random.nextInt(3) / 2) : TILL;
                if (!dead && random.nextInt(3) > 0)
                    state = DiagnosisBench.drawn(random).apply(TILL);
                var made = new ArrayList<Made>();
                for (var question : List.of(Question.NEIGHBOUR, Question.PING, Question.PORT, Question.LINK))
                    made.add(DiagnosisBench.seen(question, state, random));
                members.add(new Member("Till " + i, TILL, made, Set.of(new Common(Shared.SWITCH, "Shop switch"))));
            }
            var v = CommonCause.of(members, BOOK);
            if (v.suspects().isEmpty()) continue;
            double p = v.suspects().stream()
                    .filter(s -> s.fault() == Fault.SWITCH_DEAD)
                    .collect(Collectors.summingDouble(CommonCause.Suspect::probability));
            cases++;
            if (p > 0.5 == dead) right++;
            if (p > 0.9) {
                sure++;
                if (dead) surelyRight++;
            }
            said += p;
        }
        assertThat((double) right / cases).as("said %s", said).isGreaterThan(0.95);
        assertThat(surelyRight / sure).isGreaterThan(0.95);
    }

    @DisplayName("A site of thirty with one silent switch is one case")
    @Test
    void thirty() {
        var members = members(IntStream.range(0, 30)
                .mapToObj(i -> "Unit " + i + " (SWITCH " + (i < 12 ? "Shop" : "Office") + " switch, STRIP Row " + i % 5
                        + ") " + (i < 12 ? "silent" : "well"))
                .collect(Collectors.joining(";")));
        var v = CommonCause.of(members, BOOK);
        assertThat(v.suspects().get(0).fault()).isEqualTo(Fault.SWITCH_DEAD);
        assertThat(v.apart()).isLessThan(0.01);
        assertThat(CommonCause.says(members, v.suspects().get(0)))
                .isEqualTo("12 devices fail together: all hang on Shop switch.");
    }
}
