package app.knottag.server.audit;

import static org.assertj.core.api.Assertions.assertThat;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.server.Api;
import app.knottag.server.Running;
import app.knottag.server.account.Role;
import app.knottag.server.record.SightingStore;
import app.knottag.server.record.SightingStore.SightingRow;
import java.nio.charset.StandardCharsets;
import java.sql.SQLException;
import java.time.Duration;
import java.time.Instant;
import java.util.ArrayList;
import java.util.List;
import java.util.Random;
import java.util.TreeSet;
import java.util.stream.IntStream;
import java.util.stream.StreamSupport;
import org.junit.jupiter.api.BeforeEach;
import org.junit.jupiter.api.DisplayName;
import org.junit.jupiter.api.Test;
import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.CsvSource;
import org.junit.jupiter.params.provider.ValueSource;

/** Where devices have been, out of looks that are kept as stays. */
class PastApiTest {

    private static final Instant START = Instant.parse("2026-01-05T02:00:00Z");
    private final Api api = Running.as(Role.TECHNICIAN);
    private final SightingStore store = Running.bean(SightingStore.class);
    private long[] site;

    @BeforeEach
    void aSite() {
        site = Running.site(Running.as(Role.LEAD));
    }

    private static Mac mac(int n) {
        return Mac.parse(String.format("00:00:5E:00:54:%02X", n));
    }

    private static SightingRow heard(int mac, int at, Instant when) {
        return SightingRow.heard(Ipv4Address.parse("10.7.0." + at), mac(mac), when);
    }

    private List<String> told(String asked) {
        var told = api.get("/api/sites/" + site[0] + "/past?" + asked.replace(" ", "%20"))
                .expect(200)
                .json();
        var lines = new ArrayList<>(List.of(told.get("says").asString()));
        StreamSupport.stream(told.get("stretches").spliterator(), false)
                .map(s -> String.join(
                        " ",
                        s.get("mac").asString(),
                        s.get("address").asString(),
                        s.get("first").asString(),
                        s.get("last").asString(),
                        s.get("looks").asString()))
                .forEach(lines::add);
        return lines;
    }

    /** The rule look by look, from all that was ever seen; quadratic, and nothing of it is kept between looks. */
    private static List<String> bySight(List<List<SightingRow>> looks, int mac) {
        var lines = new TreeSet<String>();
        var all = looks.stream()
                .flatMap(List::stream)
                .filter(s -> s.mac().equals(mac(mac)))
                .toList();
        for (var start : all) {
            if (joined(all, start, -1).isPresent()) continue;
            var last = start;
            int count = 1;
            for (var next = joined(all, last, 1); next.isPresent(); next = joined(all, last, 1), count++)
                last = next.get();
            lines.add(start.mac() + " " + start.address() + " " + start.seenAt() + " " + last.seenAt() + " " + count);
        }
        return List.copyOf(lines);
    }

    /** Returns the next look, or the one before, that belongs to the same stay. */
    private static java.util.Optional<SightingRow> joined(List<SightingRow> all, SightingRow s, int way) {
        return all.stream()
                .filter(o -> o.address().equals(s.address()) && way * o.seenAt().compareTo(s.seenAt()) > 0)
                .min((a, b) -> way * a.seenAt().compareTo(b.seenAt()))
                .filter(o -> Duration.between(o.seenAt(), s.seenAt()).abs().compareTo(Duration.ofDays(14)) <= 0)
                .filter(o -> all.stream()
                        .noneMatch(e -> !e.address().equals(s.address())
                                && way * e.seenAt().compareTo(s.seenAt()) > 0
                                && way * e.seenAt().compareTo(o.seenAt()) < 0));
    }

    @DisplayName("Looks that are kept as stays tell what all of them side by side would")
    @ParameterizedTest
    @ValueSource(ints = {1, 2, 3, 4})
    void asIfEveryLookWereKept(int seed) {
        var random = new Random(seed);
        var looks = new ArrayList<List<SightingRow>>();
        var at = START;
        for (int look = 0; look < 70; look++) {
            at = at.plus(Duration.ofHours(random.nextInt(12) == 0 ? 24 * (13 + random.nextInt(4)) : 24));
            var seen = new TreeSet<String>();
            var rows = new ArrayList<SightingRow>();
            for (int m = 0; m < 4; m++)
                for (int times = random.nextInt(8) == 0 ? 2 : random.nextInt(10) == 0 ? 0 : 1; times > 0; times--) {
                    int where = random.nextInt(6) == 0 ? 121 + random.nextInt(2) : 120;
                    if (seen.add(m + " " + where)) rows.add(heard(10 * seed + m, where, at));
                }
            looks.add(rows);
            store.add(site[0], rows, "x");
        }
        for (int m = 0; m < 4; m++) {
            var kept = told("of=" + mac(10 * seed + m));
            assertThat(kept.subList(1, kept.size()).stream().sorted())
                    .containsExactlyElementsOf(bySight(looks, 10 * seed + m));
        }
        assertThat(told("of=10.7.0.120").get(0)).startsWith("Two had it at the same time");
    }

    @DisplayName("A list from last spring that comes late takes nothing away, and the same look twice counts once")
    @Test
    void lateAndTwice() {
        for (int day : new int[] {0, 1, 2, 40, 41})
            store.add(site[0], List.of(heard(247, 50, START.plus(Duration.ofDays(day)))), "x");
        store.add(site[0], List.of(heard(247, 50, START.plus(Duration.ofDays(41)))), "x");
        store.add(site[0], List.of(heard(247, 51, START.plus(Duration.ofDays(20)))), "x");
        store.add(site[0], List.of(heard(247, 50, START.minus(Duration.ofDays(3)))), "x");
        assertThat(told("of=00-00-5e-00-54-f7"))
                .containsExactly(
                        "It has been at 2 addresses; at 10.7.0.50 since 14 Feb 2026, 03:00, last seen 15 Feb 2026, 03:00.",
                        "00:00:5E:00:54:F7 10.7.0.50 2026-02-14T02:00:00Z 2026-02-15T02:00:00Z 2",
                        "00:00:5E:00:54:F7 10.7.0.51 2026-01-25T02:00:00Z 2026-01-25T02:00:00Z 1",
                        "00:00:5E:00:54:F7 10.7.0.50 2026-01-02T02:00:00Z 2026-01-07T02:00:00Z 4");
        assertThat(told("at=25 Jan 2026, 9:00"))
                .containsExactly(
                        "One device was there, as far as the looks before and after tell.",
                        "00:00:5E:00:54:F7 10.7.0.51 2026-01-25T02:00:00Z 2026-01-25T02:00:00Z 1");
        assertThat(told("at=2026-01-30T12:00").get(0))
                .isEqualTo(
                        "Nobody looked about then: the last look before it was 25 Jan 2026, 03:00, the next one 14 Feb 2026, 03:00.");
        assertThat(told("at=2026-01-06T12:00&of=10.7.0.50")).hasSize(2);
        api.get("/api/sites/" + site[0] + "/past?at="
                        + java.time.LocalDate.now().plusDays(40) + "T12:00")
                .refused(422, "future");
    }

    @DisplayName("Who it is stands beside its MAC, on record, known, or at another site")
    @Test
    void names() throws SQLException {
        long till = Running.till(Running.as(Role.LEAD), site, 1);
        String other = Running.site(Running.as(Role.LEAD))[0] + "";
        api.sendBytes(
                        "POST",
                        "/api/sites/" + site[0] + "/intakes?source=NEIGHBOURS&preview=false&make=false",
                        "text/plain",
                        "10.7.0.51 00:00:5e:00:53:01".getBytes(StandardCharsets.UTF_8))
                .expect(200);
        String here = "/api/sites/" + site[0] + "/past?of=10.7.0.51";
        assertThat(api.get(here).json().at("/stretches/0/name").asString()).isEqualTo("Till 1");
        assertThat(api.get(here).json().at("/stretches/0/endpointId").asLong()).isEqualTo(till);
        Running.write("update interface set retired_at = now(), counts = false where endpoint_id = " + till);
        assertThat(api.get(here).json().at("/stretches/0/name").asString()).isEqualTo("Till 1, a MAC it had before");
        Running.write("update endpoint set retired_at = now() where id = " + till);
        assertThat(api.get(here).json().at("/stretches/0/name").asString()).isEqualTo("Till 1, retired");
        assertThat(api.get(here).json().at("/stretches/0/endpointId").asLong()).isZero();
        var there =
                api.get("/api/sites/" + other + "/past?of=00:00:5E:00:53:01").json();
        assertThat(there.findValuesAsString("site")).allMatch(s -> s.startsWith("Site "));
    }

    @DisplayName("What cannot be looked for is said")
    @ParameterizedTest
    @CsvSource({"'', needed", "of=lamp, bad-value", "of=10.7.0.999, bad-value", "at=yesterday, bad-moment"})
    void refused(String asked, String code) {
        api.get("/api/sites/" + site[0] + "/past?" + asked).refused(422, code);
        api.get("/api/sites/999999/past?of=10.7.0.1").refused(404, "not-found");
    }

    @DisplayName("Of more than can be looked through nothing is said, rather than half of it")
    @ParameterizedTest(name = "{0} stays: {1} shown")
    @CsvSource({"500, 500, false", "501, 500, true"})
    void moreThanCanBeLookedThrough(int stays, int shown, boolean more) {
        store.add(
                site[0],
                IntStream.range(0, stays)
                        .mapToObj(n ->
                                SightingRow.heard(Ipv4Address.parse("10.7.0.60"), new Mac(0x00005E540000L + n), START))
                        .toList(),
                "lead");
        var told = api.get("/api/sites/" + site[0] + "/past?of=10.7.0.60")
                .expect(200)
                .json();
        assertThat(told.get("stretches")).hasSize(shown);
        assertThat(told.get("more").asBoolean()).isEqualTo(more);
        assertThat(told.get("says").asString().startsWith("There are more than 500 stays"))
                .isEqualTo(more);
    }
}
