package app.knottag.server.verify;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.hardware.Mac;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kind.Talk;
import app.knottag.core.reach.CheckRunner;
import app.knottag.core.reach.Probes;
import app.knottag.core.reach.Target;
import app.knottag.core.reach.Vantage;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.GearTold;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.util.HashMap;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Objects;
import java.util.Optional;
import java.util.stream.Stream;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Component;

/** What is to be proved of an endpoint, from where one looks, and what its proofs belong to. */
@Component
class Targets {

    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Runbooks runbooks;
    private final GearTold told;

    Targets(EndpointStore store, SiteStore siteStore, Sites sites, Runbooks runbooks, GearTold told) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.runbooks = runbooks;
        this.told = told;
    }

    /** The target, or why there is none yet. */
    Target required(EndpointStore.Row e) {
        var target = of(e).orElseThrow(() -> Problem.of(
                HttpStatus.CONFLICT,
                "facts-missing",
                "Address, MAC and serial must be on record before it can be proved."));
        if (!CheckRunner.onOwnGround(target, target.ground()))
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "foreign-ground",
                    "The endpoint or its partner lies outside this site's segments. Checks stay on the site's own ground.");
        return target;
    }

    /** The target when all is on record, and all that would be asked lies on the site's own context. */
    Optional<Target> provable(EndpointStore.Row e) {
        return of(e).filter(t -> CheckRunner.onOwnGround(t, t.ground()));
    }

    Optional<Target> of(EndpointStore.Row e) {
        if (e.address() == null || e.mac() == null || e.serial().isEmpty()) return Optional.empty();
        var kind = runbooks.kind(e);
        var context = sites.context(sites.segment(e.segmentId()), e.address());
        var known = new HashMap<Mac, String>();
        store.holders(e.siteId()).stream().filter(h -> h.mac() != null).forEach(h -> known.put(h.mac(), h.name()));
        return Optional.of(new Target(
                e.address(),
                e.mac(),
                e.serial(),
                Optional.ofNullable(e.servicePort()).orElse(kind.service().defaultPort()),
                context.segment(),
                kind.service(),
                partner(e).map(p -> new Target.Partner(p.name(), p.address(), Optional.ofNullable(p.testPort()))),
                known,
                kind.callsOut() ? context.resolvers() : List.of(),
                siteStore.services(e.siteId()).stream()
                        .filter(s -> s.calledBy(kind.id()) || s.kinds().isEmpty() && fitsByPort(kind, s))
                        .map(s -> listed(s, s.calledBy(kind.id())))
                        .toList(),
                ground(e.siteId()),
                told.of(e.siteId(), e.address())));
    }

    private static boolean fitsByPort(Kind kind, SiteStore.ServiceRow s) {
        return kind.talks().stream().anyMatch(t -> t.to() == Talk.To.INTERNET && t.port() == s.port());
    }

    private static Target.Listed listed(SiteStore.ServiceRow s, boolean certain) {
        return new Target.Listed(s.name(), s.protocol(), s.host(), s.port(), certain);
    }

    /** How a service that the site lists is called. */
    Probes.Call call(long siteId, long serviceId) {
        return siteStore.services(siteId).stream()
                .filter(s -> s.id() == serviceId)
                .map(s -> listed(s, true))
                .map(l -> new Probes.Call(l.protocol(), l.host(), l.port(), "", ground(siteId), resolvers(siteId)))
                .findFirst()
                .orElseThrow(() -> Problem.notFound("There is no such service on the site's list."));
    }

    private Optional<SiteStore.PartnerRow> partner(EndpointStore.Row e) {
        return Optional.ofNullable(e.partnerId()).map(siteStore::partner);
    }

    List<Ipv4Prefix> ground(long siteId) {
        return siteStore.segments(siteId).stream()
                .flatMap(s -> Stream.of(s.prefix(), s.nextPrefix()))
                .filter(Objects::nonNull)
                .toList();
    }

    /** The resolvers of the site's segments, those of the first segment first. */
    private List<Ipv4Address> resolvers(long siteId) {
        return siteStore.segments(siteId).stream()
                .flatMap(s -> Sites.resolvers(s).stream())
                .distinct()
                .toList();
    }

    Vantage vantage(long siteId, Probes probes) {
        var segments = new LinkedHashMap<String, Ipv4Prefix>();
        siteStore.segments(siteId).forEach(s -> segments.put(s.name(), s.prefix()));
        return new Vantage(probes.here().addresses(), segments);
    }
}
