package app.knottag.core.audit;

import static app.knottag.core.audit.AuditTest.RECORDED;
import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.plan.Conflict;
import app.knottag.core.plan.Method;
import app.knottag.core.plan.SitePlan;
import app.knottag.core.plan.SitePlan.PlannedEndpoint;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class SeenConflictsTest {

    private static final SitePlan PLAN = new SitePlan(
            List.of(),
            List.of(),
            RECORDED.stream()
                    .map(r -> new PlannedEndpoint(
                            r.id(),
                            r.name(),
                            r.name().toLowerCase(),
                            7,
                            r.address(),
                            Method.FIXED,
                            Optional.empty(),
                            Optional.empty(),
                            r.mac(),
                            Optional.empty(),
                            Optional.empty(),
                            Optional.empty(),
                            false))
                    .toList(),
            List.of(),
            List.of(),
            List.of(),
            List.of());

    private static List<Conflict> conflicts(String seen, String looked) {
        return SeenConflicts.of(PLAN, AuditTest.audit(seen, looked));
    }

    /** Written by hand from practice before the code ran: 1 is the till, 2 the clock, 3 the reader without a MAC. */
    @ParameterizedTest(name = "{0}, looked {1} h ago: {2}")
    @CsvSource(
            delimiter = '|',
            value = {
                "N 10@51-1, N 60@52-1             | S1 | nothing",
                "N 10@51-1, N 99@51-2, N 60@52-1  | S1 | BROKEN ADDRESS_SEEN_TWICE 1",
                "N 10@120-1, N 60@52-1            | S1 | RISK SEEN_ELSEWHERE 1",
                "N 10@77-1, N 60@52-1             | S1 | RISK SEEN_ELSEWHERE 1",
                // it sits where another one belongs
                "N 10@52-1                        | S1 | BROKEN SEEN_ELSEWHERE 1",
                "N 10@51-1, N 99@52-1             | S1 | BROKEN OTHER_HOLDS_ADDRESS 2",
                // may be the reader itself, whose label nobody has read
                "N 10@51-1, N 60@52-1, N 99@53-1  | S1 | nothing",
                "N 10@51-1, N 61@52-1             | S1 | RISK OTHER_INTERFACE 2",
                "N 10@51-1, N 60@52-900           | 1  | UNTIDY NOT_SEEN 2",
                // what never was there is not gone
                "N 10@51-1                        | S1 | nothing",
                "N 10@51-1, N 60@52-1, N 99@77-1  | S1 | nothing",
                "N 10@51-1, N 60@52-1, N 99@150-1 | S1 | nothing",
            })
    void whatWasSeenSpeaksAgainstThePlan(String seen, String looked, String expected) {
        var said = conflicts(seen, looked).stream()
                .map(c -> c.severity() + " " + c.code() + " " + c.endpoints().get(0))
                .collect(Collectors.joining(", "));
        assertThat(said.isEmpty() ? "nothing" : said).isEqualTo(expected);
    }

    @Test
    void saysItInTheWordsOfTheAudit() {
        var conflict = conflicts("N 10@51-1, N 61@52-1", "S1").get(0);
        assertThat(conflict.message())
                .isEqualTo(
                        "Clock: it is not seen itself, but 00:00:5E:00:53:3D right beside its MAC is, at 10.9.0.52: its other "
                                + "interface, or another unit of the same delivery.");
        assertThat(conflict.segmentId()).isEqualTo(7);
        assertThat(conflicts("N 10@51-1, N 99@52-1", "S1").get(0).message())
                .isEqualTo("00:00:5E:00:53:63: it answers at the address of Clock.");
    }
}
