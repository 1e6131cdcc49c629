package app.knottag.core.address;

import static org.assertj.core.api.Assertions.assertThat;

import inet.ipaddr.IPAddressString;
import java.math.BigInteger;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.util.Optional;
import java.util.Random;
import java.util.regex.Pattern;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class Ipv6AddressTest {

    private static final Pattern LOOSE = Pattern.compile("[0-9A-Fa-f]{5,}|(^|[.:])0[0-9]+[.]|[.]0[0-9]");

    @DisplayName("The forms of RFC 4291 and RFC 5952 read as one, printed as RFC 5952 wants it")
    @ParameterizedTest(name = "{0}: {1}")
    @CsvSource({
        "ABCD:EF01:2345:6789:ABCD:EF01:2345:6789, abcd:ef01:2345:6789:abcd:ef01:2345:6789",
        "2001:DB8:0:0:8:800:200C:417A,            2001:db8::8:800:200c:417a",
        "FF01:0:0:0:0:0:0:101,                    ff01::101",
        "0:0:0:0:0:0:0:1,                         ::1",
        "0:0:0:0:0:0:0:0,                         ::",
        "0:0:0:0:0:FFFF:129.144.52.38,            ::ffff:8190:3426",
        "::13.1.68.3,                             ::d01:4403",
        "2001:db8:0:0:0:0:2:1,                    2001:db8::2:1",
        "2001:db8:0:1:1:1:1:1,                    2001:db8:0:1:1:1:1:1",
        "2001:0:0:1:0:0:0:1,                      2001:0:0:1::1",
        "2001:db8:0:0:1:0:0:1,                    2001:db8::1:0:0:1",
        "1:2:3:4:5:6:7::,                         1:2:3:4:5:6:7:0",
        "::2:3:4:5:6:7:8,                         0:2:3:4:5:6:7:8",
    })
    void reads(String text, String canonical) {
        assertThat(Ipv6Address.read(text)).hasValueSatisfying(a -> assertThat(a).hasToString(canonical));
    }

    @DisplayName("Of a hundred thousand texts it takes those that the JDK takes, and prints them as a library does")
    @Test
    void judged() throws UnknownHostException {
        var random = new Random(4291);
        int taken = 0;
        for (int n = 0; n < 100_000; n++) {
            String text = text(random);
            var read = Ipv6Address.read(text);
            assertThat(read.map(Ipv6AddressTest::bytes)).as(text).isEqualTo(byJdk(text));
            if (read.isEmpty()) continue;
            taken++;
            var judge = new IPAddressString(text).getAddress();
            var address = read.get();
            assertThat(address).as(text).hasToString(judge.toCanonicalString());
            int length = random.nextInt(129);
            assertThat(address.network(length))
                    .as(text + "/" + length)
                    .hasToString(judge.toPrefixBlock(length)
                            .getLower()
                            .withoutPrefixLength()
                            .toCanonicalString());
            assertThat(address.unspecified()).isEqualTo(judge.isZero());
            assertThat(address.loopback()).isEqualTo(judge.isLoopback());
            assertThat(address.multicast()).isEqualTo(judge.isMulticast());
            assertThat(address.linkLocal()).as(text).isEqualTo(!judge.isMulticast() && judge.isLinkLocal());
        }
        assertThat(taken).isBetween(20_000, 90_000);
    }

    private static BigInteger bytes(Ipv6Address address) {
        return new BigInteger(Long.toUnsignedString(address.high()))
                .shiftLeft(64)
                .add(new BigInteger(Long.toUnsignedString(address.low())));
    }

    private static Optional<BigInteger> byJdk(String text) {
        // The JDK takes a group of five digits and octets with a zero in front, which RFC 4291 and RFC 6943 do not.
        if (LOOSE.matcher(text).find()) return Optional.empty();
        try {
            var address = InetAddress.getByName("[" + text + "]").getAddress();
            // The JDK gives the last four bytes of what stands for an IPv4 address.
            var number = new BigInteger(1, address);
            return Optional.of(
                    address.length == 16
                            ? number
                            : number.add(BigInteger.valueOf(0xffff).shiftLeft(32)));
        } catch (UnknownHostException none) {
            return Optional.empty();
        }
    }

    /** An address with many zeros in one of its forms, every second time with a character more, less or another. */
    private static String text(Random random) {
        var text = new StringBuilder();
        int groups = random.nextInt(8) == 0 ? 7 + random.nextInt(3) : 8,
                gap = random.nextInt(3) == 0 ? -1 : random.nextInt(8);
        int skipped = gap < 0 ? 0 : 1 + random.nextInt(8);
        boolean dotted = random.nextInt(6) == 0;
        for (int n = 0; n < groups; n++) {
            if (n == gap) {
                text.append(n == 0 ? "::" : ":");
                n += skipped - 1;
                continue;
            }
            if (dotted && n >= groups - 2) {
                for (int octet = 0; octet < 4; octet++)
                    text.append(octet == 0 ? "" : ".").append(random.nextInt(3) == 0 ? random.nextInt(270) : 7);
                break;
            }
            int value = switch (random.nextInt(4)) {
                case 0 -> 0;
                case 1 -> new int[] {0xfe80, 0xff02, 0xfebf, 1}[random.nextInt(4)];
                default -> random.nextInt(0x10000);
            };
            text.append(random.nextInt(5) == 0 ? String.format("%04X", value) : Integer.toHexString(value));
            if (n < groups - 1) text.append(':');
        }
        if (random.nextInt(3) == 0 && !text.isEmpty()) {
            int at = random.nextInt(text.length());
            char other = "0123456789abcdefF:.g".charAt(random.nextInt(20));
            switch (random.nextInt(3)) {
                case 0 -> text.deleteCharAt(at);
                case 1 -> text.insert(at, other);
                default -> text.setCharAt(at, other);
            }
        }
        return text.toString();
    }
}
