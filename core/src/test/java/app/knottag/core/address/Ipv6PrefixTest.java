package app.knottag.core.address;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatThrownBy;

import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class Ipv6PrefixTest {

    @DisplayName("A prefix is printed as RFC 5952 wants it, and reads back as itself")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "2001:db8:16::/64,            2001:db8:16::/64",
        "2001:0DB8:0016:0::/64,       2001:db8:16::/64",
        "' 2001:db8::/32 ',           2001:db8::/32",
        "fd00:44:16:0:0:0:0:0/48,     fd00:44:16::/48",
        "2001:db8:0:0:1::/80,         2001:db8:0:0:1::/80",
    })
    void reads(String text, String canonical) {
        assertThat(Ipv6Prefix.parse(text)).hasToString(canonical);
        assertThat(Ipv6Prefix.parse(canonical)).isEqualTo(Ipv6Prefix.parse(text));
    }

    @DisplayName("What is none is refused with the way out")
    @ParameterizedTest(name = "{index}: “{0}”")
    @CsvSource(
            delimiter = '|',
            value = {
                "2001:db8::          | An IPv6 prefix ends in a slash and a length from 16 to 127, such as 2001:db8:16::/64.",
                "2001:db8::/8        | An IPv6 prefix ends in a slash and a length from 16 to 127, such as 2001:db8:16::/64.",
                "2001:db8::/128      | An IPv6 prefix ends in a slash and a length from 16 to 127, such as 2001:db8:16::/64.",
                "2001:db8::57/64     | 2001:db8::57/64 names an address inside the network. Did you mean 2001:db8::/64?",
                "10.44.16.0/24       | “10.44.16.0/24” is no IPv6 address.",
                "2001:db8:::/64      | “2001:db8:::/64” is no IPv6 address.",
                "garden              | “garden” is no IPv6 address.",
                "''                  | “” is no IPv6 address.",
            })
    void refuses(String text, String message) {
        assertThatThrownBy(() -> Ipv6Prefix.parse(text == null ? "" : text.replace("''", "")))
                .isInstanceOf(IllegalArgumentException.class)
                .hasMessage(message);
    }

    @DisplayName("The gateway lies inside, or is link-local as routers announce it")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource(
            delimiter = '|',
            value = {
                "2001:db8:16::1      | 2001:db8:16::1",
                "2001:DB8:16:0::0001 | 2001:db8:16::1",
                "fe80::1             | fe80::1",
                "2001:db8:17::1      | ! 2001:db8:17::1 is outside 2001:db8:16::/64; a router also answers at an "
                        + "address that begins with fe80.",
                "2001:db8:16::1/64   | ! Type the gateway without a length.",
            })
    void gateways(String text, String expected) {
        String said;
        try {
            said = Ipv6Prefix.parse("2001:db8:16::/64").gateway(text);
        } catch (IllegalArgumentException e) {
            said = "! " + e.getMessage();
        }
        assertThat(said).isEqualTo(expected);
    }
}
