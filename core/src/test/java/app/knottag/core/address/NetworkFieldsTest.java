package app.knottag.core.address;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Discovery.Way;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.SplittableRandom;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class NetworkFieldsTest {

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    @DisplayName("Address, mask and gateway agree, or the odd one is named")
    @ParameterizedTest(name = "{0} {1} {2}: {3}")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.44.16.57  | 255.255.255.0   | 10.44.16.1   | |",
                "10.0.0.0     | 255.255.255.254 | 10.0.0.1     | |",
                "10.44.16.57  | 255.0.255.0     | 10.44.16.1   | MASK | 255.0.255.0 is no mask: its ones are not in one "
                        + "piece. Nearest: 255.255.0.0.",
                "10.44.16.0   | 255.255.255.0   | 10.44.16.1   | ADDRESS | 10.44.16.0 names the network 10.44.16.0/24; "
                        + "no device can have it.",
                "10.44.16.255 | 255.255.255.0   | 10.44.16.1   | ADDRESS | 10.44.16.255 is the broadcast address of "
                        + "10.44.16.0/24; no device can have it.",
                "10.44.16.57  | 255.255.255.192 | 10.44.16.1   | |",
                "10.44.16.77  | 255.255.255.192 | 10.44.16.1   | GATEWAY | With mask 255.255.255.192 the device at "
                        + "10.44.16.77 cannot reach the gateway 10.44.16.1: it is outside 10.44.16.64/26. One of the "
                        + "three is wrong.",
                "10.44.16.1   | 255.255.255.0   | 10.44.16.1   | GATEWAY | Address and gateway are both 10.44.16.1.",
                "10.44.16.57  | 255.255.255.0   | 10.44.16.255 | GATEWAY | 10.44.16.255 is the network or broadcast "
                        + "address of 10.44.16.0/24; no router can have it.",
            })
    void agree(String address, String mask, String gateway, String field, String message) {
        var odd = NetworkFields.judge(a(address), a(mask), a(gateway));
        assertThat(odd.map(o -> o.field().name()).orElse(null)).isEqualTo(field);
        assertThat(odd.map(o -> o.finding().message()).orElse(null)).isEqualTo(message);
    }

    @DisplayName("A search ends at the subnet")
    @ParameterizedTest(name = "{0}/{1} to {2}/{3}, same cable {4}: {5}")
    @CsvSource({
        "10.44.16.31, 24, 10.44.16.57, 24, true,  SEARCH",
        "10.44.16.31, 24, 10.44.16.57, 24, false, MOVE",
        "10.44.16.31, 24, 10.44.17.57, 24, true,  ENTER_ADDRESS",
        "10.44.16.31, 16, 10.44.17.57, 24, true,  MOVE",
    })
    void finds(String station, int own, String device, int its, boolean sameCable, Way way) {
        assertThat(Discovery.judge(a(station), own, a(device), its, sameCable).way())
                .isEqualTo(way);
    }

    @Test
    void aTrustedRangeShrinksToThoseThatNeedIt() {
        var segment = new Segment(
                Ipv4Prefix.parse("10.0.0.0/24"),
                Optional.of(a("10.0.0.1")),
                List.of(new Pool(a("10.0.0.100"), a("10.0.0.199"))));
        var shrunk = TrustedRange.shrink(
                new AddressRange(a("10.0.0.1"), a("10.0.0.127")),
                segment,
                List.of(a("10.0.0.20"), a("10.0.0.200"), a("10.0.0.20")),
                Map.of("the guests", new AddressRange(a("10.0.0.64"), a("10.0.0.79"))));
        assertThat(shrunk.count()).isEqualTo(127);
        assertThat(shrunk.keep()).containsExactly(a("10.0.0.20"), a("10.0.0.200"));
        assertThat(shrunk.removed()).isEqualTo(126);
        assertThat(shrunk.warnings())
                .containsExactly(
                        "It trusts the gateway 10.0.0.1, and so everything that comes through it.",
                        "It trusts the pool 10.0.0.100 to 10.0.0.199: whoever plugs in there is let in.",
                        "It trusts the guests, 10.0.0.64 to 10.0.0.79.",
                        "10.0.0.200 needs trust but lies outside; add it by itself.");
    }

    @DisplayName("The prefixes of a range hold exactly its addresses")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2})
    void prefixesHoldExactlyTheRange(long seed) {
        var r = new SplittableRandom(seed);
        for (int i = 0; i < 200; i++) {
            long from = r.nextLong(0x0A000000L, 0x0A001000L), to = from + r.nextLong(0, 700);
            var range = new AddressRange(Ipv4Address.ofNumber(from), Ipv4Address.ofNumber(to));
            var at = range.from().number();
            for (var prefix : range.prefixes()) {
                assertThat(prefix.network().number()).isEqualTo(at);
                at = prefix.last().number() + 1;
            }
            assertThat(at).isEqualTo(to + 1);
        }
        assertThat(new AddressRange(a("10.0.0.1"), a("10.0.0.6")).prefixes())
                .hasToString("[10.0.0.1/32, 10.0.0.2/31, 10.0.0.4/31, 10.0.0.6/32]");
        assertThat(new AddressRange(a("0.0.0.0"), a("255.255.255.255")).prefixes())
                .hasToString("[0.0.0.0/0]");
    }
}
