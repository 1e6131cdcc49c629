package app.knottag.core.handover;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.List;
import java.util.SplittableRandom;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class TagCodeTest {

    private static final String ALPHABET = "0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ";

    @Test
    @DisplayName("The check characters are those of the standard's own example")
    void standard() {
        assertThat(TagCode.of("ISO", "79")).isEqualTo("ISO-79-3W");
        assertThat(TagCode.holds("ISO793W")).isTrue();
    }

    @Test
    @DisplayName("Every wrong character and every swap of neighbours is found, in codes of every length")
    void slips() {
        var random = new SplittableRandom(7064);
        for (int n = 0; n < 400; n++) {
            var label = new StringBuilder();
            for (int i = 0, length = 1 + n % 12; i < length; i++) label.append(ALPHABET.charAt(random.nextInt(36)));
            String bare = TagCode.bare(TagCode.of("PG", label.toString()));
            assertThat(TagCode.holds(bare)).isTrue();
            for (int i = 0; i < bare.length(); i++) {
                for (char c : ALPHABET.toCharArray())
                    if (c != bare.charAt(i))
                        assertThat(TagCode.holds(bare.substring(0, i) + c + bare.substring(i + 1)))
                                .as(bare + " " + i + c)
                                .isFalse();
                if (i + 1 < bare.length() && bare.charAt(i) != bare.charAt(i + 1))
                    assertThat(TagCode.holds(
                                    bare.substring(0, i) + bare.charAt(i + 1) + bare.charAt(i) + bare.substring(i + 2)))
                            .as(bare + " swap at " + i)
                            .isFalse();
            }
        }
    }

    @Test
    @DisplayName("Of a code with one slip the right one is among few that may be meant, with its place")
    void meant() {
        var random = new SplittableRandom(1271);
        int most = 0;
        for (int n = 0; n < 500; n++) {
            String bare = TagCode.bare(TagCode.of("PGB", "T" + (1 + random.nextInt(999))));
            int at = random.nextInt(bare.length());
            char wrong = ALPHABET.charAt(random.nextInt(36));
            if (wrong == bare.charAt(at)) continue;
            var read = TagCode.read(bare.substring(0, at) + wrong + bare.substring(at + 1));
            assertThat(read.bare()).isEmpty();
            assertThat(read.meant()).anyMatch(m -> m.bare().equals(bare) && m.position() == at);
            most = Math.max(most, read.meant().size());
        }
        assertThat(most).isLessThan(12);
    }

    @ParameterizedTest(name = "“{0}” is read as {1}")
    @CsvSource(
            nullValues = "-",
            value = {
                "ISO-79-3W, ISO793W, ''",
                " iso 79 3w , ISO793W, ''",
                "http://shop:8780/t/ISO793W, ISO793W, ''",
                "HTTPS://SHOP/T/iso-79-3w, ISO793W, ''",
                "ISO-97-3W, -, 9 and 7 are swapped",
                "IS0-79-3W, -, 0 where O stands",
                "ISO-79-3, -, W is missing",
                "ISO-779-3W, -, 7 is one too many",
            })
    void reads(String typed, String bare, String how) {
        var read = TagCode.read(typed);
        assertThat(read.bare().orElse(null)).isEqualTo(bare);
        if (bare == null)
            assertThat(read.meant())
                    .anyMatch(m -> m.bare().equals("ISO793W") && m.how().equals(how));
    }

    @Test
    @DisplayName("What is no code at all is said so, and never looked for")
    void hostile() {
        for (String text : List.of("", "---", "\u202e\u0000", "/t/"))
            assertThat(TagCode.read(text).said()).startsWith("No letter and no figure");
        assertThat(TagCode.read("A".repeat(5000)).said()).startsWith("5000 characters");
    }
}
