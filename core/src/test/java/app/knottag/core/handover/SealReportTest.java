package app.knottag.core.handover;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.handover.SealReport.Sealed;
import java.time.Instant;
import java.time.ZoneId;
import java.util.List;
import java.util.stream.Collectors;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;

class SealReportTest {

    private static Sealed seal(String number, String caseNumber, long endpoint, String at) {
        return new Sealed(number, caseNumber, endpoint, "Kiosk " + endpoint, Instant.parse(at), "Imke");
    }

    @Test
    @DisplayName(
            "By night and case: what is sealed after midnight belongs to the evening before, by the clock of the site")
    void nights() {
        var nights = SealReport.of(
                List.of(
                        seal("880002", "K-2", 2, "2031-11-25T20:00:00Z"),
                        seal("880001", "K-2", 2, "2031-11-25T20:00:00Z"),
                        seal("880009", "K-1", 1, "2031-11-26T00:30:00Z"),
                        seal("880010", "K-2", 2, "2031-11-26T10:59:00Z"),
                        seal("880011", "K-2", 2, "2031-11-26T11:00:00Z")),
                ZoneId.of("Europe/Berlin"));
        assertThat(nights.stream()
                        .map(n -> n.night() + " "
                                + n.cases().stream()
                                        .map(c -> c.caseNumber() + c.seals())
                                        .collect(Collectors.joining(" "))))
                .containsExactly("2031-11-26 K-2[880011]", "2031-11-25 K-1[880009] K-2[880001, 880002] K-2[880010]");
    }
}
