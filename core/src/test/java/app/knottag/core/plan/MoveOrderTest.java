package app.knottag.core.plan;

import static app.knottag.core.plan.PlacementTest.a;
import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.plan.MoveOrder.Hop;
import app.knottag.core.plan.MoveOrder.Wish;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.HashMap;
import java.util.List;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class MoveOrderTest {

    /** “2>3 3>4” as wishes; ids are the last figures of where they stand. */
    private static List<Wish> wishes(String text) {
        return Arrays.stream(text.split(" "))
                .map(pair -> pair.split(">"))
                .map(p -> new Wish(Long.parseLong(p[0]), a("10.0.0." + p[0]), a("10.0.0." + p[1])))
                .toList();
    }

    private static String said(List<Hop> hops) {
        return String.join(
                " ",
                hops.stream()
                        .map(h -> h.id()
                                + (h.parked() ? "~" : ">")
                                + h.to().map(t -> "" + t.group(3)).orElse("off"))
                        .toList());
    }

    @DisplayName("Who stands in the way moves first, and a ring is opened once")
    @ParameterizedTest(name = "{0}, spare {1}: {2}")
    @CsvSource(
            nullValues = "-",
            value = {
                "2>2,             9, ''",
                "2>3,             9, 2>3",
                "2>3 3>4,         9, 3>4 2>3",
                "4>5 2>3 3>4,     9, 4>5 3>4 2>3",
                "2>3 3>2,         9, 2~9 3>2 2>3",
                "2>3 3>2,         -, 2~off 3>2 2>3",
                "2>3 3>2 5>6 6>5, 9, 2~9 3>2 2>3 5~9 6>5 5>6",
                "2>3 3>4 4>2 7>8, 9, 7>8 2~9 4>2 3>4 2>3",
            })
    void orders(String wishes, String spare, String expected) {
        var places = spare == null ? List.<Ipv4Address>of() : List.of(a("10.0.0." + spare));
        assertThat(said(MoveOrder.order(wishes(wishes), places).before())).isEqualTo(expected);
    }

    @DisplayName("Whatever is shuffled, no two ever stand on one address and all arrive")
    @ParameterizedTest(name = "{0} devices, seed {1}")
    @CsvSource({"6, 1", "40, 2", "250, 3", "250, 4"})
    void neverTwo(int count, long seed) {
        var r = new SplittableRandom(seed);
        var targets = new ArrayList<Integer>();
        for (int i = 0; i < count; i++) targets.add(i);
        for (int i = count - 1; i > 0; i--) targets.set(i, targets.set(r.nextInt(i + 1), targets.get(i)));
        var wishes = new ArrayList<Wish>();
        var base = a("10.8.0.0");
        for (int i = 0; i < count; i++)
            if (r.nextInt(5) > 0) wishes.add(new Wish(i, base.plus(i), base.plus(targets.get(i))));
        // Those who stay put are in nobody's way.
        var staying = wishes.stream().map(Wish::to).toList();
        wishes.removeIf(w -> staying.contains(w.from()) && wishes.stream().noneMatch(o -> o.to().equals(w.from())));
        var holds = new HashMap<Long, Ipv4Address>();
        wishes.forEach(w -> holds.put(w.id(), w.from()));
        int parked = 0;
        for (var hop : MoveOrder.order(wishes, List.of(base.plus(1000))).before()) {
            assertThat(Optional.ofNullable(holds.get(hop.id()))).isEqualTo(hop.from());
            assertThat(holds.values()).doesNotContain(hop.to().orElseThrow());
            holds.put(hop.id(), hop.to().orElseThrow());
            if (hop.parked()) parked++;
        }
        wishes.forEach(w -> assertThat(holds).containsEntry(w.id(), w.to()));
        assertThat(parked).isLessThanOrEqualTo(count / 2);
    }
}
