package app.knottag.core.intake;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatCode;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import java.nio.charset.StandardCharsets;
import java.util.Locale;
import java.util.Map;
import java.util.SplittableRandom;
import java.util.stream.Collectors;
import java.util.stream.IntStream;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Lists come from anywhere: whatever stands in them, every line is taken, left out or named, and nothing is lost. */
class HostileTextTest {

    private static final java.time.Instant NOW = java.time.Instant.parse("2026-11-24T12:00:00Z");
    private static final String ALPHABET = "0123456789.:;,-/ abcdefxyzLM{}()[]\"'#\t=+@\\ßé";

    private static String line(SplittableRandom r) {
        return IntStream.range(0, r.nextInt(60))
                .mapToObj(i -> "" + ALPHABET.charAt(r.nextInt(ALPHABET.length())))
                .collect(Collectors.joining());
    }

    @DisplayName("Random text never breaks a reader")
    @ParameterizedTest(name = "seed {0}")
    @ValueSource(longs = {1, 2, 3, 4})
    void neverBreaks(long seed) {
        var r = new SplittableRandom(seed);
        for (int i = 0; i < 400; i++) {
            String text = line(r) + "\n" + line(r) + "\nlease " + line(r) + "{" + line(r) + "}";
            assertThatCode(() -> Listing.read(text, NOW)).as(text).doesNotThrowAnyException();
            assertThatCode(() -> sheet(text)).as(text).doesNotThrowAnyException();
            assertThatCode(() -> PlainText.decode(text.getBytes(StandardCharsets.UTF_16LE)))
                    .doesNotThrowAnyException();
        }
    }

    /** The only way out of a sheet that is none is the exception with the reason. */
    private static void sheet(String text) {
        Sheet sheet;
        try {
            sheet = Sheet.read(text);
        } catch (IllegalArgumentException e) {
            assertThat(e.getMessage()).isNotBlank();
            return;
        }
        sheet.drafts(sheet.match(), Map.of());
        sheet.drafts(Map.of(Sheet.Column.NAME, 0, Sheet.Column.ADDRESS, 1), Map.of());
    }

    @DisplayName("Of a true list no line is lost, whatever its form")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "%a dev eth0 lladdr %m REACHABLE",
                "? (%a) at %m [ether] on eth0",
                "Internet  %a   12   %c  ARPA   Vlan16",
                "1795600000 %m %a host%n 01:%m",
                "%a,%m,01:%m,3600,1795600000,1,0,0,host%n,0,,0",
                "lease %a { ends 2 2026/11/24 20:00:00; hardware ethernet %m; client-hostname \"host%n\"; }",
            })
    void losesNone(String form) {
        var r = new SplittableRandom(form.hashCode());
        var text = new StringBuilder();
        for (int n = 0; n < 120; n++) {
            var mac = new Mac(r.nextLong(1L << 40) & ~(1L << 40));
            text.append(form.replace(
                                    "%a",
                                    Ipv4Address.parse("10.44.16.0").plus(n + 1).toString())
                            .replace("%m", mac.toString().toLowerCase(Locale.ROOT))
                            .replace("%c", dotted(mac))
                            .replace("%n", "" + n))
                    .append('\n');
        }
        var parsed = Listing.read(text.toString(), NOW);
        assertThat(parsed.problems()).isEmpty();
        assertThat(parsed.drafts()).hasSize(120);
        assertThat(parsed.drafts())
                .allMatch(d -> d.mac().isPresent() && d.address().isPresent());
        assertThat(parsed.drafts().get(7).line()).isEqualTo(8);
        assertThat(parsed.drafts().get(7).name()).isEqualTo(form.contains("%n") ? "host7" : "");
    }

    private static String dotted(Mac mac) {
        String digits = mac.toString().replace(":", "").toLowerCase(Locale.ROOT);
        return digits.substring(0, 4) + "." + digits.substring(4, 8) + "." + digits.substring(8);
    }
}
