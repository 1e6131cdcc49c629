package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.Whereabouts;
import app.knottag.core.audit.Whereabouts.Hung;
import app.knottag.core.audit.Whereabouts.Stretch;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.plan.Sighting;
import app.knottag.core.time.SiteClock;
import app.knottag.server.audit.PastStore.Asked;
import app.knottag.server.audit.PastStore.StretchRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Dates;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Where a device has been, who has had an address, and who was there at a past time. */
@Service
class Past {

    private static final int AT_MOST = 500;

    private final PastStore store;
    private final GearStore gear;
    private final Sites sites;

    Past(PastStore store, GearStore gear, Sites sites) {
        this.store = store;
        this.gear = gear;
        this.sites = sites;
    }

    /**
     * @param hung at which ports a MAC hung, or who hung at the port that was asked for
     * @param more whether there is more than is shown
     */
    record Told(String says, List<Stretch> stretches, List<Hung> hung, boolean more) {}

    /**
     * Tells what was seen.
     *
     * @param of a MAC, an address, or a port such as “Shop switch 7”; blank for everybody
     * @param at a day and time as the site writes them; blank for ever
     */
    @Transactional(readOnly = true)
    Told told(long siteId, String of, String at) {
        var clock = sites.clock(siteId);
        if (of.isBlank() && at.isBlank())
            throw Problem.field("of", "needed", "Type a MAC, an address, a port, or the day and time to look back to.");
        var moment = moment(at, clock);
        var address = Ipv4Address.read(of.strip());
        if (address.isEmpty() && !of.isBlank()) {
            var ever = hung(siteId, of.strip());
            if (!ever.isEmpty() && ever.get(0).port().equalsIgnoreCase(of.strip())) return atPort(ever, moment, clock);
        }
        var mac = address.isPresent() || of.isBlank() ? Optional.<Mac>empty() : Optional.of(mac(of));
        var rows = store.stretches(new Asked(
                siteId,
                mac.map(Mac::toString).orElse(""),
                address.map(Ipv4Address::toString).orElse(""),
                moment.map(m -> m.minus(Sighting.TOGETHER)).orElse(Instant.EPOCH),
                moment.orElse(clock.now()).plus(Sighting.TOGETHER),
                moment.isPresent(),
                Scope.now().list(),
                AT_MOST + 1));
        var stretches =
                rows.stream().limit(AT_MOST).map(r -> stretch(r, siteId)).toList();
        boolean more = rows.size() > AT_MOST;
        return new Told(
                more ? Whereabouts.tooMany(AT_MOST) : says(siteId, stretches, mac, moment, clock),
                stretches,
                mac.filter(m -> moment.isEmpty())
                        .map(m -> hung(siteId, m.toString()))
                        .orElse(List.of()),
                more);
    }

    private static Told atPort(List<Hung> ever, Optional<Instant> moment, SiteClock clock) {
        boolean cut = ever.size() > AT_MOST;
        var then = ever.stream()
                .limit(AT_MOST)
                .filter(h -> moment.filter(m -> !h.about(m)).isEmpty())
                .toList();
        return new Told(cut ? Whereabouts.tooMany(AT_MOST) : Whereabouts.ofPort(then, clock), List.of(), then, cut);
    }

    private List<Hung> hung(long siteId, String of) {
        return gear.hung(siteId, of, AT_MOST + 1).stream()
                .map(r -> new Hung(r.mac(), r.endpointId(), r.name(), r.port(), r.first(), r.last()))
                .toList();
    }

    private String says(
            long siteId, List<Stretch> stretches, Optional<Mac> mac, Optional<Instant> moment, SiteClock clock) {
        if (moment.isPresent()) {
            var looks = store.looks(siteId, moment.get());
            return Whereabouts.at(
                    stretches, Optional.ofNullable(looks.before()), Optional.ofNullable(looks.after()), clock);
        }
        return mac.isPresent() ? Whereabouts.ofMac(stretches, clock) : Whereabouts.ofAddress(stretches, clock);
    }

    private static Optional<Instant> moment(String at, SiteClock clock) {
        if (at.isBlank()) return Optional.empty();
        var moment = Dates.moment("at", at, clock.style()).atZone(clock.zone()).toInstant();
        if (moment.isAfter(clock.now()))
            throw Problem.field("at", "future", "That is yet to come. Type a day and time that are past.");
        return Optional.of(moment);
    }

    private static Mac mac(String of) {
        return MacReader.read(of, List.of(), Optional.empty())
                .kept()
                .map(Mac::parse)
                .orElseThrow(() -> Problem.field(
                        "of",
                        "bad-value",
                        "This is neither a MAC of twelve digits 0 to 9 and A to F, nor an address such as 192.168.1.20, "
                                + "nor a port of a switch that was read, such as Shop switch 7."));
    }

    private static Stretch stretch(StretchRow r, long siteId) {
        return new Stretch(
                r.address(),
                Optional.ofNullable(r.mac()),
                r.endpointId(),
                r.name(),
                r.source(),
                r.first(),
                r.last(),
                r.looks(),
                r.siteId() == siteId ? "" : r.site());
    }
}
