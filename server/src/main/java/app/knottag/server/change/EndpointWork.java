package app.knottag.server.change;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.ProofBasis;
import app.knottag.server.change.EndpointForm.EndpointFacts;
import app.knottag.server.change.EndpointForm.NewEndpoint;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.EndpointStore.Written;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.InterfaceStore;
import app.knottag.server.record.Interfaces;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.Wires;
import app.knottag.server.web.Etags;
import app.knottag.server.web.FormReader;
import java.time.Clock;
import java.util.LinkedHashMap;
import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Adds, changes and retires endpoints, as {@link EndpointForm} has read them. */
@Service
public class EndpointWork {

    private final Endpoints endpoints;
    private final Numbering numbering;
    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Consequences consequences;
    private final Wires wires;
    private final Interfaces interfaces;
    private final InterfaceStore interfaceStore;
    private final Conflicts conflicts;
    private final Log log;
    private final Clock clock;

    EndpointWork(
            Endpoints endpoints,
            Numbering numbering,
            EndpointStore store,
            SiteStore siteStore,
            Sites sites,
            Consequences consequences,
            Wires wires,
            Interfaces interfaces,
            InterfaceStore interfaceStore,
            Conflicts conflicts,
            Log log,
            Clock clock) {
        this.endpoints = endpoints;
        this.numbering = numbering;
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.consequences = consequences;
        this.wires = wires;
        this.interfaces = interfaces;
        this.interfaceStore = interfaceStore;
        this.conflicts = conflicts;
        this.log = log;
        this.clock = clock;
    }

    @Transactional
    public long add(long siteId, NewEndpoint wanted, String by) {
        store.oneAtATime(siteId);
        var facts = wanted.facts();
        long segmentId = wanted.segment().id();
        facts.address().ifPresent(a -> conflicts.refuseReserved(siteId, segmentId, a, facts.name()));
        var kind = wanted.kind();
        Integer number = wanted.number().orElse(null);
        Long placeId = wires.place(siteId, facts.ends().place());
        long id = store.add(new Written(
                0,
                siteId,
                segmentId,
                kind.id(),
                kind.version(),
                facts.name(),
                facts.hostName().isEmpty()
                        ? numbering.hostName(
                                siteId,
                                kind,
                                wanted.series(),
                                number,
                                facts.ends().place())
                        : facts.hostName(),
                wanted.series().map(SeriesRow::id).orElse(null),
                number,
                facts.address().orElse(null),
                facts.method().orElse(wanted.segment().method()),
                wanted.servicePort().orElseGet(() -> numbering.servicePort(kind, wanted.series(), number)),
                facts.partner()
                        .map(p -> partner(siteId, p, wanted.testPort().orElse(null), facts.reason(), by))
                        .orElse(null),
                facts.partner()
                        .flatMap(p -> numbering.partnerPort(wanted.series(), number))
                        .orElse(null),
                facts.serial(),
                facts.model(),
                placeId,
                wires.outlet(siteId, facts.ends().outlet(), placeId),
                wires.port(siteId, facts.ends().port()),
                numbering.tagCode(siteId, kind, number)));
        interfaces.count(siteId, id, facts.mac().orElse(null));
        consequences.stand(id);
        log.write(Log.entry(by, "endpoint added")
                .at(siteId, id)
                .after(endpoints.get(id))
                .because(facts.reason()));
        return id;
    }

    @Transactional
    public void change(long id, int expected, EndpointFacts facts, String by) {
        long siteId = endpoints.get(id).siteId();
        store.oneAtATime(siteId);
        var was = endpoints.get(id);
        facts.address()
                .filter(a -> !a.equals(was.address()))
                .ifPresent(a -> conflicts.refuseReserved(siteId, was.segmentId(), a, facts.name()));
        var before = consequences.before(was);
        Long partnerId = facts.partnerStays()
                ? was.partnerId()
                : facts.partner()
                        .map(p -> partner(siteId, p, null, facts.reason(), by))
                        .orElse(null);
        Long placeId = wires.place(siteId, facts.ends().place());
        var row = new Written(
                id,
                siteId,
                was.segmentId(),
                was.kind(),
                was.kindVersion(),
                facts.name(),
                facts.hostName(),
                was.seriesId(),
                was.number(),
                facts.address().orElse(null),
                facts.method().orElse(was.method()),
                was.servicePort(),
                partnerId,
                partnerId == null ? null : was.partnerPort(),
                facts.serial(),
                facts.model(),
                placeId,
                wires.outlet(siteId, facts.ends().outlet(), placeId),
                wires.port(siteId, facts.ends().port()),
                was.tagCode());
        if (store.change(row, expected) == 0) throw Etags.stale();
        if (!facts.mac().equals(Optional.ofNullable(was.mac())))
            interfaces.count(siteId, id, facts.mac().orElse(null));
        changed(was, before, "endpoint changed", facts.reason(), by);
    }

    /** The old unit is gone with every interface it had; only the new unit's MAC stays. */
    @Transactional
    public void unitGone(long id, Mac stays) {
        interfaceStore.of(id).stream()
                .filter(i -> !i.mac().equals(stays))
                .forEach(i -> interfaceStore.retire(i.id(), clock.instant()));
    }

    /** Puts an endpoint away for repair or as a loan, or back in its place. */
    @Transactional
    public void away(long id, int expected, boolean away, String why, String by) {
        var was = endpoints.get(id);
        String words = FormReader.words("why", why, away);
        if (store.away(id, away ? clock.instant() : null, away ? words : "", expected) == 0) throw Etags.stale();
        log.write(Log.entry(by, away ? "endpoint put away" : "endpoint is back")
                .at(was.siteId(), id)
                .before(was)
                .because(words));
    }

    /** Gives an endpoint another address as part of a larger change; its proof is lost with the old one. */
    @Transactional
    public void move(long id, Ipv4Address to, String reason, String by) {
        var was = endpoints.get(id);
        if (Objects.equals(to, was.address())) return;
        var before = consequences.before(was);
        if (store.move(id, to) == 0) throw Etags.stale();
        changed(was, before, "endpoint moved", reason, by);
    }

    /** An endpoint that keeps its address is told another mask, gateway or resolver: what was typed and proved is not so any more. */
    @Transactional
    public void refit(long id, String reason, String by) {
        var was = endpoints.get(id);
        consequences.told(was);
        logged(was, "endpoint told other figures", reason, by);
    }

    /** Keeps a partner by its name; when it has another address since, whoever was proved with the old one is told so. */
    private long partner(long siteId, EndpointFacts.Partner p, Integer testPort, String reason, String by) {
        var known = siteStore.partners(siteId).stream()
                .filter(k -> k.name().equals(p.name()))
                .findFirst();
        if (known.isEmpty() || !known.get().address().equals(p.address()))
            conflicts.refusePartner(siteId, p.name(), p.address());
        known.filter(k -> !k.address().equals(p.address()))
                .ifPresent(k -> movePartner(k.id(), p.address(), reason, by));
        return sites.keepPartner(siteId, p.name(), p.address(), testPort);
    }

    /** Gives a partner another address; whoever was proved with the old one has to be proved again. */
    @Transactional
    public void movePartner(long partnerId, Ipv4Address to, String reason, String by) {
        var before = new LinkedHashMap<EndpointStore.Row, ProofBasis>();
        for (long id : store.ofPartner(partnerId))
            before.put(endpoints.get(id), consequences.before(endpoints.get(id)));
        siteStore.movePartner(partnerId, to);
        before.forEach((was, basis) -> changed(was, basis, "partner moved", reason, by));
    }

    private void changed(EndpointStore.Row was, ProofBasis before, String action, String reason, String by) {
        consequences.apply(was.id(), before, by);
        logged(was, action, reason, by);
    }

    private void logged(EndpointStore.Row was, String action, String reason, String by) {
        log.write(Log.entry(by, action)
                .at(was.siteId(), was.id())
                .before(was)
                .after(endpoints.get(was.id()))
                .because(reason));
    }

    @Transactional
    public void retire(long id, int expected, String reason, String by) {
        var was = endpoints.get(id);
        String why = FormReader.words("reason", reason, true);
        if (store.retire(id, clock.instant(), expected) == 0) throw Etags.stale();
        interfaces.retireAll(id);
        log.write(Log.entry(by, "endpoint retired")
                .at(was.siteId(), id)
                .before(was)
                .because(why));
    }
}
