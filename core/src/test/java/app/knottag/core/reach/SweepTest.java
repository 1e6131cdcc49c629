package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Segment;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Sweep.Line;
import app.knottag.core.reach.Sweep.Planned;
import java.util.HashMap;
import java.util.HashSet;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** Who is there against the plan. */
class SweepTest {

    private static final Segment SHOP =
            new Segment(Ipv4Prefix.parse("10.44.16.0/24"), Optional.of(a(1)), List.of(new Pool(a(100), a(199))));
    private static final List<Planned> PLAN = List.of(
            new Planned(a(1), "Gateway", Optional.empty(), 0),
            new Planned(a(51), "Till 1", Optional.of(mac("11")), 2),
            new Planned(a(52), "Till 2", Optional.of(mac("17")), 3),
            new Planned(a(53), "Till 3", Optional.empty(), 4));

    private static Ipv4Address a(int host) {
        return Ipv4Address.parse("10.44.16." + host);
    }

    private static Mac mac(String end) {
        return Mac.parse("00:00:5E:00:53:" + end);
    }

    @DisplayName("What answers is compared with the plan, what matters most first")
    @ParameterizedTest(name = "{0}; table {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "1 51 52 | 51=11 52=17 | SILENT Till 3 Silent, and its MAC is seen nowhere.; AS_PLANNED Gateway It "
                        + "answers, but no MAC is seen.; AS_PLANNED Till 1 There, with its own MAC.; AS_PLANNED Till 2 "
                        + "There, with its own MAC.",
                "51 52   | 51=17 52=17 | OTHER_MAC Till 1 Till 2 (00:00:5E:00:53:17) answers, not 00:00:5E:00:53:11.; "
                        + "SILENT Gateway Silent, and its MAC is seen nowhere.; SILENT Till 3 Silent, and its MAC is "
                        + "seen nowhere.; AS_PLANNED Till 2 There, with its own MAC.",
                "51      | 51=4E       | OTHER_MAC Till 1 00:00:5E:00:53:4E, which is not on record, answers, not "
                        + "00:00:5E:00:53:11.; SILENT Gateway Silent, and its MAC is seen nowhere.; SILENT Till 2 "
                        + "Silent, and its MAC is seen nowhere.; SILENT Till 3 Silent, and its MAC is seen nowhere.",
                "51      | 51=11 51=17 52=98 52=99 60=98 60=99 | TWO Till 1 Two answer for it: 00:00:5E:00:53:11, its "
                        + "own; and Till 2 (00:00:5E:00:53:17).; TWO Till 2 Two answer for it: 00:00:5E:00:53:98, which "
                        + "is not on record; and 00:00:5E:00:53:99, which is not on record.; TWO  Two answer for it: "
                        + "00:00:5E:00:53:98 and 00:00:5E:00:53:99.; SILENT Gateway Silent, and its MAC is seen "
                        + "nowhere.; SILENT Till 3 Silent, and its MAC is seen nowhere.",
                "1 53    | 130=11 53=1E 60=17 | MOVED Till 1 Silent here; its MAC is at 10.44.16.130, in the pool: it "
                        + "is on automatic.; MOVED Till 2 Silent here; its MAC is at 10.44.16.60.; STRANGER Till 2 Till "
                        + "2 is planned at 10.44.16.52.; AS_PLANNED Gateway It answers, but no MAC is seen.; AS_PLANNED "
                        + "Till 3 There; no MAC of it is on record to compare.; LEASED Till 1 Till 1 is planned at "
                        + "10.44.16.51.",
                "1 51 52 53 77 150 | 51=11 52=17 77=99 150=98 | STRANGER  A stranger: nobody is planned here, and its "
                        + "MAC is not on record.; AS_PLANNED Gateway It answers, but no MAC is seen.; AS_PLANNED Till 1 "
                        + "There, with its own MAC.; AS_PLANNED Till 2 There, with its own MAC.; AS_PLANNED Till 3 It "
                        + "answers, but no MAC is seen.; LEASED  In the pool: somebody with a leased address.",
            })
    void judges(String answered, String table, String lines) {
        var there = new HashMap<Ipv4Address, Set<Mac>>();
        for (String h : answered.split(" ")) there.put(a(Integer.parseInt(h)), new HashSet<>());
        for (String t : table.split(" "))
            there.computeIfAbsent(a(Integer.parseInt(t.split("=")[0])), x -> new HashSet<>())
                    .add(mac(t.split("=")[1]));
        var swept = new Swept(there, Set.of(mac("1E"), mac("77")), "");
        assertThat(Sweep.judge(SHOP, PLAN, swept, true).stream()
                        .map(SweepTest::said)
                        .collect(Collectors.joining("; ")))
                .isEqualTo(lines);
    }

    private static String said(Line l) {
        return l.verdict() + " " + l.name() + " " + l.words();
    }

    @DisplayName("From elsewhere no MAC is missed")
    @Test
    void fromElsewhere() {
        assertThat(Sweep.judge(SHOP, PLAN, new Swept(Map.of(a(51), Set.of()), Set.of(), ""), false))
                .filteredOn(l -> l.verdict() == Sweep.Verdict.AS_PLANNED)
                .extracting(Line::words)
                .containsExactly("It answers; from here its MAC is not seen.");
        assertThat(Sweep.judge(SHOP, PLAN, new Swept(Map.of(), Set.of(), ""), false))
                .extracting(Line::words)
                .containsOnly("Silent; from here MACs are not seen.");
    }

    @DisplayName("Who answers over IPv6 only is on, and said so")
    @Test
    void overSixOnly() {
        var swept = new Swept(Map.of(a(51), Set.of(mac("11"))), Set.of(mac("11"), mac("17"), mac("4E")), "");
        assertThat(Sweep.onlyOverSix(swept)).containsExactly(mac("17"), mac("4E"));
        assertThat(Sweep.judge(SHOP, PLAN, swept, true))
                .filteredOn(l -> l.name().equals("Till 2"))
                .extracting(Line::words)
                .containsExactly("Silent; its MAC answers over IPv6 only: it is on, and has no address here.");
    }
}
