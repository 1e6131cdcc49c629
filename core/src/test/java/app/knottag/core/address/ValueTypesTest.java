package app.knottag.core.address;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ValueTypesTest {

    private static Ipv4Address a(String text) {
        return Ipv4Address.parse(text);
    }

    @DisplayName("An address is only what it prints")
    @ParameterizedTest(name = "“{0}”: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.0.0      | needs four groups, has 3",
                "10.0.0.0.1  | needs four groups, has 5",
                "10.0.0.256  | 256",
                "10.0.0.01   | 01",
                "10.0.0.-1   | -1",
                "10.0.0.     | ",
                "10.0.0.1e   | 1e",
                "10.0.0.٣    | ٣",
            })
    void refusesOtherForms(String text, String why) {
        assertThatThrownBy(() -> a(text))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage("not an IPv4 address: \"" + text + "\" (" + (why == null ? "" : why) + ")");
    }

    @DisplayName("A prefix has a length and no host bits")
    @ParameterizedTest(name = "“{0}”: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "10.0.0.0    | not a prefix: \"10.0.0.0\" (needs an address, a slash and 0..32)",
                "10.0.0.0/x  | not a prefix: \"10.0.0.0/x\" (needs an address, a slash and 0..32)",
                "10.0.0.0/33 | prefix length must be 0..32, was 33",
                "10.0.0.1/24 | host bits set in 10.0.0.1/24; the network address is 10.0.0.0",
            })
    void refusesOtherPrefixes(String text, String message) {
        assertThatThrownBy(() -> Ipv4Prefix.parse(text))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage(message);
    }

    @DisplayName("Masks and ends of prefixes, to the edges")
    @ParameterizedTest(name = "{0}: mask {1}, {2} to {3}")
    @CsvSource({
        "0.0.0.0/0, 0.0.0.0, 0.0.0.1, 255.255.255.254",
        "10.0.0.0/8, 255.0.0.0, 10.0.0.1, 10.255.255.254",
        "10.44.16.0/24, 255.255.255.0, 10.44.16.1, 10.44.16.254",
        "10.44.16.128/25, 255.255.255.128, 10.44.16.129, 10.44.16.254",
        "10.0.0.4/30, 255.255.255.252, 10.0.0.5, 10.0.0.6",
        "10.0.0.4/31, 255.255.255.254, 10.0.0.4, 10.0.0.5",
        "10.0.0.4/32, 255.255.255.255, 10.0.0.4, 10.0.0.4",
    })
    void ends(String prefix, String mask, String lowest, String highest) {
        var p = Ipv4Prefix.parse(prefix);
        assertThat(p.toString()).isEqualTo(prefix);
        assertThat(p.mask()).isEqualTo(a(mask));
        assertThat(p.lowestUsable()).isEqualTo(a(lowest));
        assertThat(p.highestUsable()).isEqualTo(a(highest));
    }

    @DisplayName("Overlap is the same both ways")
    @ParameterizedTest(name = "{0} and {1}: {2}")
    @CsvSource({
        "10.0.0.0/8, 10.44.0.0/16, true",
        "10.44.0.0/24, 10.44.1.0/24, false",
        "10.0.0.0/24, 10.0.0.0/24, true",
        "0.0.0.0/0, 192.0.2.0/24, true",
        "10.0.0.0/31, 10.0.0.2/31, false"
    })
    void overlap(Ipv4Prefix one, Ipv4Prefix other, boolean expected) {
        assertThat(one.overlaps(other)).isEqualTo(expected);
        assertThat(other.overlaps(one)).isEqualTo(expected);
    }

    @Test
    void addressesCountAndCompareWithoutSign() {
        assertThat(a("127.255.255.255").plus(1)).isEqualTo(a("128.0.0.0"));
        assertThat(a("200.0.0.1")).isGreaterThan(a("9.0.0.1"));
        assertThatThrownBy(() -> a("255.255.255.255").plus(1)).hasMessage("not an address: 4294967296");
        assertThatThrownBy(() -> a("0.0.0.0").plus(-1)).hasMessage("not an address: -1");
        assertThatThrownBy(() -> new Pool(a("10.0.0.9"), a("10.0.0.8")))
                .hasMessage("a pool runs upwards: 10.0.0.9 comes after 10.0.0.8");
    }

    @DisplayName("What can be fixed leaves out gateway, pool, network and broadcast address")
    @ParameterizedTest(name = "{0} gateway {1} pool {2} to {3}: {4}")
    @CsvSource({
        "10.0.0.0/24, 10.0.0.1, 10.0.0.100, 10.0.0.199, 153",
        "10.0.0.0/24, 10.0.0.150, 10.0.0.100, 10.0.0.199, 154",
        "10.0.0.0/24, 10.0.0.1, 10.0.0.0, 10.0.0.255, 0",
        "10.0.0.0/29, 10.0.0.1, 10.0.0.6, 10.0.0.6, 4",
    })
    void fixable(Ipv4Prefix prefix, Ipv4Address gateway, Ipv4Address from, Ipv4Address to, long expected) {
        var segment = new Segment(prefix, Optional.of(gateway), List.of(new Pool(from, to)));
        assertThat(segment.fixableHosts()).isEqualTo(expected);
        long counted = 0;
        for (long n = prefix.network().number(); n <= prefix.last().number(); n++)
            if (segment.fixable(Ipv4Address.ofNumber(n))) counted++;
        assertThat(counted).isEqualTo(expected);
    }

    @DisplayName("Neighbouring keys share an edge on either pad")
    @ParameterizedTest
    @ValueSource(strings = {"12", "14", "25", "58", "69", "10", "20", "80"})
    void neighbouringKeys(String pair) {
        assertThat(Keying.neighbours(pair.charAt(0), pair.charAt(1))).isTrue();
        assertThat(Keying.neighbours(pair.charAt(1), pair.charAt(0))).isTrue();
    }

    @ParameterizedTest(name = "{0} are not neighbours")
    @ValueSource(strings = {"15", "19", "37", "50", "90", "11", "a1", "1."})
    void otherKeys(String pair) {
        assertThat(Keying.neighbours(pair.charAt(0), pair.charAt(1))).isFalse();
    }
}
