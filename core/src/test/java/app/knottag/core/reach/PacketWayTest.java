package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.reach.Diagnosis.Made;
import app.knottag.core.reach.FaultBook.Lately;
import app.knottag.core.reach.NetworkState.Traits;
import java.util.Arrays;
import java.util.EnumMap;
import java.util.List;
import java.util.Map;
import java.util.Set;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class PacketWayTest {

    private static final FaultBook BOOK = FaultBook.shipped();

    private static List<Made> questions(String text) {
        return Arrays.stream(text.split(" "))
                .map(w -> w.split("="))
                .map(w -> new Made(Question.valueOf(w[0]), FieldCases.outcome(w[1])))
                .toList();
    }

    @DisplayName("The way is good as far as it is known, and breaks where it must")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "NEIGHBOUR=nobody PING=silent LINK=dark PLUGS=at-wall POWER=on   | WIRE",
                "NEIGHBOUR=nobody PING=silent POWER=off OTHERS_HERE=yes PORT_PAGE=fine | DEVICE",
                "NEIGHBOUR=right PING=answers PORT=refused FIELDS=nothing        | SERVICE",
                "NEIGHBOUR=right SERIAL=right PARTNER_TEST=none PARTNER_FIELDS=off DEVICE_TEST=fails | PARTNER",
                "NEIGHBOUR=right SERIAL=right RESOLVER=empty FAR=no-name OTHERS_OUTSIDE=no | LINE",
                "NEIGHBOUR=nobody LINK=lit REGISTRY=absent                       | REGISTRY",
                "GATEWAY=silent PING=silent VANTAGE=elsewhere                    | HERE",
            })
    void breaks(String seen, FaultBook.Place place) {
        var intended = NetworkState.intended(new Traits(true, true, true, true));
        var made = questions(seen);
        var verdict = Diagnosis.of(intended, BOOK, made);
        var way = PacketWay.of(intended, BOOK, made, verdict);
        assertThat(way.stream().filter(s -> s.state() == PacketWay.State.BREAK))
                .extracting(PacketWay.Stretch::place)
                .containsExactly(place);
        assertThat(way.stream().filter(PacketWay.Stretch::next).count())
                .isEqualTo(verdict.next().isPresent() ? 1 : 0);
    }

    @DisplayName("Before anything was looked at nothing is known to be good; who calls nobody has no line")
    @Test
    void unknown() {
        var alone = NetworkState.intended(new Traits(false, false, true, false));
        var way = PacketWay.of(alone, BOOK, List.of(), Diagnosis.of(alone, BOOK, List.of()));
        assertThat(way)
                .extracting(PacketWay.Stretch::place)
                .doesNotContain(FaultBook.Place.PARTNER, FaultBook.Place.LINE);
        assertThat(way)
                .extracting(PacketWay.Stretch::state)
                .doesNotContain(PacketWay.State.BREAK, PacketWay.State.GOOD);
        var intended = NetworkState.intended(new Traits(false, true, true, false));
        var made = questions("VANTAGE=own GATEWAY=answers NEIGHBOUR=nobody PING=silent POWER=off PARTNER_TEST=none");
        assertThat(PacketWay.of(intended, BOOK, made, Diagnosis.of(intended, BOOK, made)))
                .filteredOn(s -> s.share() < 0.02)
                .extracting(s -> s.place() + " " + s.state())
                .containsExactly("HERE GOOD", "SERVICE UNSEEN", "PARTNER UNSEEN", "ROUTER GOOD");
    }

    @DisplayName("What a site has shown counts up to three times what is usual, and only once it is enough")
    @Test
    void learned() {
        double usual = share(BOOK, Fault.UPLINK_DOWN);
        assertThat(share(BOOK.learned(Map.of(Fault.UPLINK_DOWN, FaultBook.ENOUGH - 1)), Fault.UPLINK_DOWN))
                .isEqualTo(usual);
        var often = BOOK.learned(Map.of(Fault.UPLINK_DOWN, 500));
        assertThat(often.of(Fault.UPLINK_DOWN).prior()
                        / often.of(Fault.NO_POWER).prior())
                .isBetween(
                        FaultBook.LEARNS_AT_MOST
                                * 0.99
                                * BOOK.of(Fault.UPLINK_DOWN).prior()
                                / BOOK.of(Fault.NO_POWER).prior(),
                        FaultBook.LEARNS_AT_MOST
                                * 1.01
                                * BOOK.of(Fault.UPLINK_DOWN).prior()
                                / BOOK.of(Fault.NO_POWER).prior());
        assertThat(share(often, Fault.UPLINK_DOWN)).isGreaterThan(usual * 2);
    }

    @DisplayName("What was changed lately makes what goes wrong with it likelier, and nothing else impossible")
    @Test
    void lately() {
        var moved = BOOK.after(Set.of(Lately.MOVED));
        assertThat(share(moved, Fault.OUTLET_IN_OTHER_SEGMENT))
                .isGreaterThan(2 * share(BOOK, Fault.OUTLET_IN_OTHER_SEGMENT));
        assertThat(share(moved, Fault.SIGN_IN)).isPositive();
        assertThat(BOOK.after(Set.of())).isSameAs(BOOK);
        var all = new EnumMap<Lately, Integer>(Lately.class);
        for (var l : Lately.values()) all.put(l, BOOK.lately().get(l).times().size());
        assertThat(all.values()).allMatch(n -> n > 2);
    }

    private static double share(FaultBook book, Fault fault) {
        return book.of(fault).prior()
                / book.faults().values().stream().collect(Collectors.summingDouble(FaultBook.Entry::prior));
    }
}
