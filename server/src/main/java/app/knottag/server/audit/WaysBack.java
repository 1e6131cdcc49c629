package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.Finding;
import app.knottag.core.audit.Standing;
import app.knottag.core.audit.WayBack;
import app.knottag.core.audit.WayBack.Away;
import app.knottag.core.audit.WayBack.Pointing;
import app.knottag.core.hardware.Mac;
import app.knottag.core.impact.Bond;
import app.knottag.core.impact.Change;
import app.knottag.server.audit.Audits.Audited;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.time.Duration;
import java.util.EnumSet;
import java.util.Optional;
import java.util.Set;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Gathers what was seen of a device that is away from its address, and what rests on that. */
@Service
class WaysBack {

    private static final Set<Standing> AWAY = EnumSet.of(Standing.AUTOMATIC, Standing.MOVED);

    private static final Duration TOGETHER = Duration.ofDays(1);

    private final Audits audits;
    private final Impacts impacts;
    private final PastStore past;
    private final Endpoints endpoints;
    private final Runbooks runbooks;
    private final Sites sites;

    WaysBack(Audits audits, Impacts impacts, PastStore past, Endpoints endpoints, Runbooks runbooks, Sites sites) {
        this.audits = audits;
        this.impacts = impacts;
        this.past = past;
        this.endpoints = endpoints;
        this.runbooks = runbooks;
        this.sites = sites;
    }

    /** @param version of the endpoint that it is told of */
    record Told(int version, WayBack back) {}

    @Transactional(readOnly = true)
    Told of(long endpointId) {
        var endpoint = endpoints.get(endpointId);
        var audited = audits.audit(endpoint.siteId());
        var found = audited.findings().stream()
                .filter(f -> f.endpoint() == endpointId && AWAY.contains(f.standing()))
                .findFirst()
                .orElseThrow(() -> notAway(endpoint));
        var planned = Optional.ofNullable(endpoint.address()).orElseThrow(() -> notAway(endpoint));
        return new Told(
                endpoint.version(),
                WayBack.of(
                        away(endpoint, planned, found, audited),
                        audited.segments().stream().map(sites::plain).toList(),
                        runbooks.kind(endpoint),
                        runbooks.runbook(endpoint),
                        pointing(endpoint),
                        sites.clock(endpoint.siteId())));
    }

    private static Problem notAway(EndpointStore.Row endpoint) {
        return Problem.of(
                HttpStatus.CONFLICT,
                "not-away",
                endpoint.name() + " was not seen at another address than its own. Look at the audit again.");
    }

    private Away away(EndpointStore.Row endpoint, Ipv4Address planned, Finding found, Audited audited) {
        var mac = found.mac().orElseThrow();
        var stay = found.stay().orElseThrow();
        return new Away(
                planned,
                stay.at(),
                endpoint.method(),
                past.heldUntil(endpoint.siteId(), mac, planned),
                stay.first(),
                audited.findings().stream()
                        .filter(f -> f.endpoint() != endpoint.id() && AWAY.contains(f.standing()))
                        .filter(f -> f.stay()
                                .filter(s -> Duration.between(s.first(), stay.first())
                                                .abs()
                                                .compareTo(TOGETHER)
                                        <= 0)
                                .isPresent())
                        .map(Finding::name)
                        .toList(),
                holder(planned, mac, audited));
    }

    private static String holder(Ipv4Address planned, Mac mac, Audited audited) {
        return audited.findings().stream()
                .filter(f -> f.standing() != Standing.SILENT
                        && f.mac().filter(mac::equals).isEmpty())
                .filter(f -> f.stay().filter(s -> s.at().equals(planned)).isPresent())
                .map(Finding::name)
                .findFirst()
                .orElse("");
    }

    /** What else has to know of another address. */
    private Pointing pointing(EndpointStore.Row endpoint) {
        var impact = impacts.impact(endpoint.siteId(), Change.ADDRESS, "DEVICE:" + endpoint.id());
        // It has the new address already.
        var steps =
                impact.steps().stream().filter(s -> s.act() != Bond.Act.CHANGE).toList();
        return new Pointing(
                steps.stream().map(s -> s.thing() + ": " + s.title()).distinct().toList(),
                steps.stream().mapToInt(s -> s.minutes()).sum(),
                impact.unknown());
    }
}
