package app.knottag.core.audit;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.within;

import app.knottag.core.audit.Recheck.History;
import app.knottag.core.audit.Recheck.Line;
import app.knottag.core.audit.Recheck.Overdue;
import app.knottag.core.audit.Recheck.Proved;
import app.knottag.core.audit.Recheck.Weight;
import java.time.Duration;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Random;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

/** How proofs age: sums by hand, and worlds that are played through. */
class RecheckTest {

    private static final Instant NOW = Instant.parse("2026-11-30T12:00:00Z");

    private static Proved proved(long id, long site, String kind, Weight weight, int daysAgo) {
        return new Proved(
                id, kind + " " + id, site, "", kind, weight, NOW.minus(Duration.ofDays(daysAgo)), Optional.empty());
    }

    private static Line line(Weight weight, int daysAgo, int changes, double years) {
        return Recheck.of(
                        List.of(proved(1, 1, "printer", weight, daysAgo)),
                        Map.of("printer", new History("label printer", changes, years)),
                        NOW)
                .get(0);
    }

    @DisplayName("With nothing known: each quarter, half year or year; what is known moves that")
    @ParameterizedTest(name = "{0}, {1} days, {2} changes in {3} years")
    @CsvSource({
        // weight, days since, changes, years, chance in percent, days until due, overdue
        "ALONE,     365, 0,  0,  50, 365, true",
        "ALONE,     364, 0,  0,  50, 365, false",
        "REACHED,   183, 0,  0,  33, 183, true",
        "WAITED_ON,  92, 0,  0,  20,  91, true",
        "WAITED_ON,   0, 0,  0,   0,  91, false",
        // Nine years without a change: 1 - (10/11)^1.
        "ALONE,     365, 0,  9,   9, 3650, false",
        "WAITED_ON, 365, 0,  9,   9, 913, false",
        // Four changes in one year: 1 - (2/3)^5, and 2 (0.5^-0.2 - 1) years.
        "ALONE,     365, 4,  1,  87, 109, true",
        "REACHED,    90, 4,  1,  44,  62, true",
    })
    void aged(Weight weight, int days, int changes, double years, int chance, int untilDue, boolean overdue) {
        var line = line(weight, days, changes, years);
        assertThat(line.chance()).isEqualTo(chance);
        assertThat(Math.round(Duration.between(line.device().held(), line.due()).toHours() / 24.0))
                .isEqualTo(untilDue);
        assertThat(line.overdue()).isEqualTo(overdue);
    }

    @DisplayName("What is said names when it held, who needs it, and from what that is known")
    @ParameterizedTest(name = "{0}")
    @CsvSource(
            delimiter = '|',
            value = {
                "WAITED_ON | 0   | 0 | 0    | Its checks held today; its partner works through it. Little is known of its kind "
                        + "here, so half of all proofs are taken to hold a year.",
                "REACHED   | 1   | 0 | 0.5  | Its checks held yesterday; others reach it. No change was found in 6 "
                        + "months of label printers here.",
                "ALONE     | 412 | 1 | 6.54 | Its checks held 412 days ago; nobody on record rests on it. One change was found in "
                        + "6.5 years of label printers here.",
                "ALONE     | 2   | 3 | 1    | Its checks held 2 days ago; nobody on record rests on it. 3 changes were found in 1 year of "
                        + "label printers here.",
                "ALONE     | 2   | 1 | 0.02 | Its checks held 2 days ago; nobody on record rests on it. One change was found in 1 month of "
                        + "label printers here.",
            })
    void said(Weight weight, int days, int changes, double years, String says) {
        assertThat(line(weight, days, changes, years).says()).isEqualTo(says);
    }

    @DisplayName(
            "Overdue first, by chance times cost, the rest by their days; the next visit is where the cost adds up to most")
    @Test
    void order() {
        var lines = Recheck.of(
                List.of(
                        proved(1, 1, "camera", Weight.ALONE, 800),
                        proved(2, 1, "till", Weight.WAITED_ON, 80),
                        proved(3, 2, "till", Weight.WAITED_ON, 400),
                        proved(4, 2, "copier", Weight.REACHED, 10),
                        proved(5, 3, "camera", Weight.ALONE, 400),
                        proved(6, 3, "camera", Weight.ALONE, 400),
                        proved(7, 4, "camera", Weight.ALONE, 300)),
                Map.of(),
                NOW);
        assertThat(lines.stream().map(l -> l.device().endpoint())).containsExactly(3L, 1L, 5L, 6L, 2L, 7L, 4L);
        assertThat(Recheck.places(List.of(
                                new Overdue(1, Weight.ALONE, 2),
                                new Overdue(2, Weight.WAITED_ON, 1),
                                new Overdue(1, Weight.REACHED, 1),
                                new Overdue(3, Weight.ALONE, 1)))
                        .stream()
                        .map(p -> p.siteId() + ":" + p.overdue() + ":" + p.worth()))
                .containsExactly("1:3:4", "2:1:3", "3:1:1");
    }

    @DisplayName("In worlds with rates as they are taken to be, so many have changed as was said")
    @ParameterizedTest(name = "{0} changes in {1} years, after {2}")
    @CsvSource({"0, 0, 1", "0, 3, 0.5", "2, 3, 0.5", "5, 4, 2", "1, 0.5, 0.25"})
    void played(int changes, double years, double since) {
        var random = new Random(11);
        int like = 0;
        int changed = 0;
        while (like < 20_000) {
            // A rate of which half of all proofs hold a year, on the whole.
            double rate = -Math.log(1 - random.nextDouble());
            int found = 0;
            for (double at = wait(random, rate); at < years; at += wait(random, rate)) found++;
            if (found != changes) continue;
            like++;
            if (wait(random, rate) < since) changed++;
        }
        assertThat(Recheck.chance(changes, years, since)).isCloseTo(changed / (double) like, within(0.015));
        assertThat(Recheck.chance(changes, years, Recheck.until(changes, years, 0.4)))
                .isCloseTo(0.4, within(1e-9));
    }

    private static double wait(Random random, double rate) {
        return -Math.log(1 - random.nextDouble()) / rate;
    }
}
