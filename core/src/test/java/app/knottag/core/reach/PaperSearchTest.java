package app.knottag.core.reach;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.knottag.core.reach.NetworkState.Joined;
import app.knottag.core.reach.NetworkState.Layout;
import app.knottag.core.reach.NetworkState.Traits;
import app.knottag.core.reach.PaperSearch.Branch;
import app.knottag.core.reach.PaperSearch.Cause;
import app.knottag.core.reach.PaperSearch.Device;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.function.ToIntFunction;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.MethodSource;

class PaperSearchTest {

    private static final Device TERMINAL = new Device(new Traits(true, true, true, true, Joined.CABLE), false);

    static Stream<Device> devices() {
        return Stream.of(
                TERMINAL,
                new Device(new Traits(false, false, true, false, Joined.CABLE), false),
                new Device(new Traits(true, true, false, false, Joined.CABLE), true),
                new Device(new Traits(false, false, true, true, Joined.WIRELESS), true));
    }

    /** Goes through the paper, answering each look by its place among the outcomes. */
    private static Branch walk(PaperSearch search, ToIntFunction<Question> seen) {
        var step = search.steps().get(0);
        while (true) {
            var branch = step.branches().get(seen.applyAsInt(step.question()));
            if (branch.step().isEmpty()) return branch;
            step = search.steps().get(branch.step().get() - 1);
        }
    }

    @ParameterizedTest
    @MethodSource("devices")
    void everyWayGoesForwardToAnEndAndNoLookIsMadeTwice(Device device) {
        var search = PaperSearch.of(device);
        assertThat(search.steps()).hasSizeBetween(10, PaperSearch.MOST);
        var before = new HashMap<Integer, List<Question>>();
        before.put(1, List.of());
        for (int i = 1; i <= search.steps().size(); i++) {
            var step = search.steps().get(i - 1);
            assertThat(step.branches())
                    .extracting(Branch::outcome)
                    .isEqualTo(step.question().outcomes());
            assertThat(before.get(i)).as("step " + i).isNotNull().doesNotContain(step.question());
            var made = Stream.concat(before.get(i).stream(), Stream.of(step.question()))
                    .toList();
            for (var branch : step.branches())
                if (branch.step().isPresent()) {
                    assertThat(branch.step().get()).isGreaterThan(i);
                    assertThat(before.put(branch.step().get(), made)).isNull();
                } else if (branch.fits()) assertThat(branch.causes()).hasSizeBetween(1, 3);
        }
    }

    /** Every fault is put into the site, and whoever reads the paper answers what the packets then show. */
    @ParameterizedTest
    @MethodSource("devices")
    void whoeverFollowsItComesToTheCause(Device device) {
        var search = PaperSearch.of(device);
        var intended = NetworkState.intended(device.traits(), Layout.USUAL.handedOut(device.reserved()));
        var here = Arrays.stream(Fault.values()).filter(f -> f.shows(intended)).collect(Collectors.toSet());
        double all = 0, named = 0;
        for (var fault : here) {
            var state = fault.apply(intended);
            double prior = FaultBook.shipped().of(fault).prior();
            var end = walk(search, q -> Math.max(0, state.observe(q)));
            all += prior;
            if (end.causes().contains(new Cause(List.of(fault)))) named += prior;
        }
        assertThat(named / all).isCloseTo(1, within(0.08));
    }

    /** What a technician would say at once, written down before the paper was made. */
    @ParameterizedTest
    @CsvSource(
            delimiter = '|',
            value = {
                "LINK=DARK, PLUGS=AT_WALL                        | CABLE_OUT_AT_WALL",
                "LINK=DARK, POWER=OFF, OTHERS_HERE=NO_POWER      | ROW_POWER",
                "ADDRESS_SHOWN=SLIP                              | ADDRESS_SLIP",
                "ADDRESS_SHOWN=POOL, FIELDS=AUTOMATIC            | STILL_AUTOMATIC",
                "SCREEN=ASLEEP                                   | ASLEEP",
                "DEVICE_TEST=FAILS, NAMES=NOT_FOUND, SOCKET=WAN  | WAN_SOCKET",
                "NAMES=NOT_FOUND, FIELDS=GATEWAY                 | GATEWAY_WRONG",
                "DEVICE_TEST=FAILS, NAMES=NOT_FOUND, REGISTRY=ABSENT | NOT_REGISTERED",
            })
    void plainCasesEndWhereATechnicianWouldLook(String seen, Fault fault) {
        var answers = Arrays.stream(seen.split(", *"))
                .map(a -> a.trim().split("="))
                .collect(Collectors.toMap(a -> Question.valueOf(a[0]), a -> Outcome.valueOf(a[1])));
        var end = walk(
                PaperSearch.of(TERMINAL),
                q -> answers.containsKey(q) ? q.outcomes().indexOf(answers.get(q)) : 0);
        assertThat(end.causes()).extracting(c -> c.faults().get(0)).contains(fault);
    }
}
