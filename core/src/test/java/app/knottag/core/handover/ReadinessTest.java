package app.knottag.core.handover;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.handover.Readiness.Known;
import app.knottag.core.handover.Readiness.LetPass;
import app.knottag.core.handover.Readiness.SignOff;
import app.knottag.core.kind.Opening.Danger;
import app.knottag.core.reach.Grade;
import app.knottag.core.runbook.OpenState;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.SiteClock;
import java.time.Duration;
import java.time.Instant;
import java.time.LocalDate;
import java.time.ZoneId;
import java.util.List;
import java.util.Optional;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;

class ReadinessTest {

    private static final Instant NOW = Instant.parse("2031-11-25T09:00:00Z");
    private static final SiteClock CLOCK = new SiteClock(NOW, ZoneId.of("Europe/Berlin"), DateStyle.WORDS);

    private static OpenState opening(
            String key, Danger danger, String title, String owner, String ends, boolean closed) {
        return new OpenState(
                key,
                danger,
                title,
                "Close it.",
                owner,
                Optional.ofNullable(ends).map(LocalDate::parse),
                closed,
                "");
    }

    private static Known known(
            long id,
            String name,
            Station station,
            int daysAgo,
            Grade grade,
            Boolean office,
            TagState.State tag,
            OpenState... openings) {
        return new Known(
                id,
                name,
                station,
                Optional.of(
                        new SignOff(NOW.minus(Duration.ofDays(daysAgo)), "Imke", grade, Optional.ofNullable(office))),
                List.of(openings),
                new TagState(tag, List.of()),
                List.of(),
                Optional.empty());
    }

    private static Known passing(Known k, String key) {
        return new Known(
                k.id(),
                k.name(),
                k.station(),
                k.signOff(),
                k.openings(),
                k.tag(),
                List.of(new LetPass(key, "There is no office.", "Imke", NOW)),
                k.handedOver());
    }

    @DisplayName(
            "The shortest list: who has not come to the sign-off is taken to where it waits, and nothing more is asked")
    @ParameterizedTest(name = "{0}, signed {1} days ago, {2}, office {3}, tag {4}: {5}")
    @CsvSource(
            nullValues = "-",
            value = {
                "PLAN,     0,  FIRM, -,     NOT_PRINTED, address",
                "REGISTER, 0,  FIRM, -,     NOT_PRINTED, register",
                "ONBOARD,  0,  FIRM, -,     NOT_PRINTED, set_up",
                "CONFIRM,  99, THIN, false, HANGS_WRONG, prove",
                "HANDOVER, 0,  FIRM, true,  HANGS,       ''",
                "HANDOVER, 30, FIRM, true,  HANGS,       ''",
                "HANDOVER, 31, FIRM, true,  HANGS,       prove_again",
                "HANDOVER, 0,  THIN, true,  HANGS,       prove_again",
                "HANDOVER, 0,  FAIR, true,  HANGS,       ''",
                "HANDOVER, 0,  FIRM, -,     HANGS,       office",
                "HANDOVER, 0,  FIRM, false, HANGS,       office:apart",
                "HANDOVER, 0,  FIRM, true,  NOT_PRINTED, tag_print",
                "HANDOVER, 0,  FIRM, true,  TO_HANG,     tag_hang",
                "DONE,     31, THIN, -,     HANGS_WRONG, prove_again office tag_wrong",
            })
    void leastActs(Station station, int days, Grade grade, Boolean office, TagState.State tag, String keys) {
        var known = known(1, "Till 1", station, days, grade, office, tag);
        assertThat(Readiness.of(known, CLOCK).stream().map(Act::key).toList())
                .isEqualTo(keys.isEmpty() ? List.of() : List.of(keys.split(" ")));
        assertThat(Readiness.ready(known, CLOCK)).isEqualTo(keys.isEmpty());
    }

    @DisplayName(
            "An opening holds up the hand-over until it is closed, or somebody closes it by a day that is still to come")
    @ParameterizedTest(name = "owner {0} until {1}, closed {2}: {3}")
    @CsvSource(
            nullValues = "-",
            value = {
                "'',  -,          false, 'Factory password: open, and nobody has it in hand.'",
                "Bea, 2031-11-25, false, -",
                "Bea, 2031-11-24, false, 'Factory password: Bea closes it by 24 Nov 2031, which has passed.'",
                "Bea, -,          false, 'Factory password: Bea closes it by a day not set.'",
                "'',  -,          true,  -",
            })
    void openings(String owner, String ends, boolean closed, String said) {
        var o = opening("password", Danger.FACTORY_PASSWORD, "Factory password", owner, ends, closed);
        var acts =
                Readiness.of(known(1, "Till 1", Station.HANDOVER, 0, Grade.FIRM, true, TagState.State.HANGS, o), CLOCK);
        assertThat(acts.stream().map(Act::detail).toList()).isEqualTo(said == null ? List.of() : List.of(said));
    }

    @Test
    @DisplayName(
            "What a lead lets pass is just that thing: an opening that comes later, or the office's no, is another")
    void letPass() {
        var open = opening("password", Danger.FACTORY_PASSWORD, "Factory password", "", null, false);
        var silent = known(1, "Till 1", Station.HANDOVER, 0, Grade.FIRM, null, TagState.State.HANGS);
        assertThat(Readiness.ready(passing(silent, "office"), CLOCK)).isTrue();
        var refused = known(1, "Till 1", Station.HANDOVER, 0, Grade.FIRM, false, TagState.State.HANGS);
        assertThat(Readiness.ready(passing(refused, "office"), CLOCK)).isFalse();
        var opened = known(1, "Till 1", Station.HANDOVER, 0, Grade.FIRM, true, TagState.State.HANGS, open);
        assertThat(Readiness.ready(passing(opened, "opening:page"), CLOCK)).isFalse();
        assertThat(Readiness.ready(passing(opened, "opening:password"), CLOCK)).isTrue();
        var unproved = known(1, "Till 1", Station.CONFIRM, 0, Grade.FIRM, true, TagState.State.HANGS);
        assertThat(Readiness.ready(passing(unproved, "prove"), CLOCK))
                .as("what was never proved cannot be let pass")
                .isFalse();
    }

    @Test
    @DisplayName("One act for several is one line, in the order of the work; what is let pass is on no list")
    void wholeSite() {
        var site = List.of(
                known(1, "Till 1", Station.HANDOVER, 0, Grade.FIRM, true, TagState.State.NOT_PRINTED),
                known(2, "Copier", Station.PLAN, 0, Grade.NONE, null, TagState.State.NOT_PRINTED),
                known(3, "Till 2", Station.HANDOVER, 0, Grade.FIRM, true, TagState.State.NOT_PRINTED),
                passing(known(4, "Till 3", Station.HANDOVER, 0, Grade.FIRM, null, TagState.State.HANGS), "office"));
        assertThat(Readiness.of(site, CLOCK))
                .extracting(a -> a.what() + " "
                        + a.endpoints().stream().map(d -> d.known().name()).toList())
                .containsExactly("ADDRESS [Copier]", "TAG_PRINT [Till 1, Till 2]");
    }

    @Test
    @DisplayName(
            "What stands open at a site: the worst first, the same on several as one line, the overdue ones in front")
    void siteOpenings() {
        var site = List.of(
                known(
                        1,
                        "Copier",
                        Station.HANDOVER,
                        0,
                        Grade.FIRM,
                        true,
                        TagState.State.HANGS,
                        opening("page", Danger.PLAIN_PAGE, "Plain page", "", null, false),
                        opening("password", Danger.FACTORY_PASSWORD, "Factory password", "Bea", "2031-12-24", false)),
                known(
                        2,
                        "Scanner",
                        Station.ONBOARD,
                        0,
                        Grade.NONE,
                        null,
                        TagState.State.NOT_PRINTED,
                        opening("password", Danger.FACTORY_PASSWORD, "Factory password", "Bea", "2031-11-01", false)),
                known(
                        3,
                        "Box",
                        Station.ONBOARD,
                        0,
                        Grade.NONE,
                        null,
                        TagState.State.NOT_PRINTED,
                        opening("admin", Danger.ADMINISTRATOR, "Administrator", "", null, true)));
        assertThat(Readiness.openings(site, CLOCK))
                .extracting(o -> o.title() + " "
                        + o.holders().stream().map(Readiness.Holder::name).toList())
                .containsExactly("Factory password [Scanner, Copier]", "Plain page [Copier]");
    }
}
