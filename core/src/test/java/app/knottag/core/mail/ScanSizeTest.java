package app.knottag.core.mail;

import static org.assertj.core.api.Assertions.assertThat;

import java.util.Base64;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

class ScanSizeTest {

    @DisplayName("The largest attachment goes through when it is really encoded, and one page more does not")
    @ParameterizedTest(name = "{0} MB, pages of {1} MB")
    @CsvSource({"10, 0.5", "20, 1.3", "25, 0.087", "5, 0.9"})
    void encoded(double limit, double page) {
        int pages = ScanSize.pages(limit, page);
        var mime = Base64.getMimeEncoder();
        long goes = mime.encode(new byte[(int) (pages * page * 1e6)]).length;
        long fails = mime.encode(new byte[(int) ((pages + 1) * page * 1e6)]).length;
        assertThat(goes).isLessThanOrEqualTo((long) (limit * 1e6));
        // The text and the headers of a mail take a little of it too.
        assertThat(fails + 10_000).isGreaterThan((long) (limit * 1e6));
        assertThat(ScanSize.mail(pages * page)).isBetween(goes / 1e6, goes / 1e6 + 0.02);
    }

    @DisplayName("A page of A4 by its dots")
    @ParameterizedTest(name = "{0} dpi, {1} bits: {2} MB")
    @CsvSource({"300, 1, 1.09", "300, 8, 8.7", "300, 24, 26.1", "600, 24, 104.4"})
    void dots(double dpi, double bits, double megabytes) {
        assertThat(ScanSize.page(210, 297, dpi, bits, 1))
                .isCloseTo(megabytes, org.assertj.core.data.Offset.offset(0.05));
    }

    @DisplayName("Never more than three quarters of the limit, as the rule of thumb has it")
    @ParameterizedTest
    @ValueSource(doubles = {0.5, 1, 10, 25, 150})
    void threeQuarters(double limit) {
        assertThat(ScanSize.largestAttachment(limit)).isLessThan(limit * 0.75).isGreaterThan(limit * 0.70);
    }
}
