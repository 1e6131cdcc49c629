package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.Audit;
import app.knottag.core.audit.AuditSite;
import app.knottag.core.audit.AuditSite.Seen;
import app.knottag.core.audit.Finding;
import app.knottag.core.hardware.Mac;
import app.knottag.server.log.Log;
import app.knottag.server.record.EvidenceStore.KnownRow;
import app.knottag.server.record.SiteEvidence;
import app.knottag.server.record.SiteStore.SegmentRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.time.Instant;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.function.Function;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** How a site stands against the record, and what people say of those whom nobody knows. */
@Service
class Audits {

    private final AuditStore store;
    private final Sites sites;
    private final SiteEvidence evidence;
    private final GearReadings gear;
    private final Log log;
    private final Clock clock;

    Audits(AuditStore store, Sites sites, SiteEvidence evidence, GearReadings gear, Log log, Clock clock) {
        this.store = store;
        this.sites = sites;
        this.evidence = evidence;
        this.gear = gear;
        this.log = log;
        this.clock = clock;
    }

    /**
     * @param looked when somebody last looked, at whatever; empty when nobody ever has
     * @param segments of the site
     * @param ports where each MAC was heard last by gear that was read
     */
    record Audited(
            Optional<Instant> looked, List<Finding> findings, List<SegmentRow> segments, Map<Mac, String> ports) {

        /** Returns the number of the segment in which one was seen, or 0. */
        long segment(Finding finding) {
            return segments.stream()
                    .filter(s -> finding.stay()
                            .filter(stay -> s.prefix().contains(stay.at()))
                            .isPresent())
                    .map(SegmentRow::id)
                    .findFirst()
                    .orElse(0L);
        }
    }

    Audited audit(long siteId) {
        var seen = evidence.load(siteId);
        var ports = gear.ports(siteId);
        return new Audited(looked(seen.site()), Audit.of(seen.site(), clock.instant(), ports), seen.segments(), ports);
    }

    private static Optional<Instant> looked(AuditSite site) {
        return Stream.of(
                        site.pasted().stream(),
                        site.swept().values().stream(),
                        site.seen().stream().map(Seen::last))
                .flatMap(Function.identity())
                .max(Instant::compareTo);
    }

    @Transactional
    public void know(long siteId, Mac mac, Ipv4Address address, String what, String by) {
        sites.site(siteId);
        evidence.owner(siteId, mac).ifPresent(name -> {
            throw Problem.of(HttpStatus.CONFLICT, "on-record", mac + " is on record: it belongs to " + name + ".");
        });
        store.know(siteId, new KnownRow(mac, address, what, by, clock.instant()));
        log.write(Log.entry(by, "said who " + mac + " is").at(siteId).after(what + " at " + address));
    }

    @Transactional
    public void forget(long siteId, Mac mac, String by) {
        if (store.forget(siteId, mac) == 0) throw Problem.notFound("Nothing was said of " + mac + " at this site.");
        log.write(Log.entry(by, "took back who " + mac + " is").at(siteId));
    }
}
