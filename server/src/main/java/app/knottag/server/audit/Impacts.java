package app.knottag.server.audit;

import app.knottag.core.hardware.Gear;
import app.knottag.core.hardware.Gear.Port;
import app.knottag.core.impact.Change;
import app.knottag.core.impact.Impact;
import app.knottag.core.impact.ImpactSite;
import app.knottag.core.impact.ImpactSite.Book;
import app.knottag.core.impact.ImpactSite.Box;
import app.knottag.core.impact.ImpactSite.Calls;
import app.knottag.core.impact.ImpactSite.Device;
import app.knottag.core.impact.ImpactSite.Entry;
import app.knottag.core.impact.ImpactSite.Network;
import app.knottag.core.impact.ImpactSite.Open;
import app.knottag.core.impact.ImpactSite.Partner;
import app.knottag.core.impact.ImpactSite.Plug;
import app.knottag.core.impact.ImpactSite.Service;
import app.knottag.core.impact.KindTraits;
import app.knottag.core.kind.Kind;
import app.knottag.core.kind.Kinds;
import app.knottag.core.reading.ReadingException;
import app.knottag.core.register.Registry;
import app.knottag.server.audit.ImpactStore.EntryRow;
import app.knottag.server.audit.ImpactStore.MailRow;
import app.knottag.server.audit.ImpactStore.PassedRow;
import app.knottag.server.audit.ImpactStore.PortRow;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Firewalls;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.SiteStore.ServiceRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.Wires;
import app.knottag.server.web.Problem;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.function.Function;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;

/** Loads what is on record of a site and works out what a change there would touch. */
@Component
class Impacts {

    private final ImpactStore store;
    private final EndpointStore endpoints;
    private final SiteStore siteStore;
    private final RegistrationStore registrations;
    private final Sites sites;
    private final Wires wires;
    private final Firewalls firewalls;
    private final Kinds kinds;

    Impacts(
            ImpactStore store,
            EndpointStore endpoints,
            SiteStore siteStore,
            RegistrationStore registrations,
            Sites sites,
            Wires wires,
            Firewalls firewalls,
            Kinds kinds) {
        this.store = store;
        this.endpoints = endpoints;
        this.siteStore = siteStore;
        this.registrations = registrations;
        this.sites = sites;
        this.wires = wires;
        this.firewalls = firewalls;
        this.kinds = kinds;
    }

    @Transactional(readOnly = true)
    Impact impact(long siteId, Change change, String subject) {
        try {
            return Impact.of(load(siteId), change, subject);
        } catch (ReadingException e) {
            throw Problem.field("subject", "no-such-thing", e.getMessage());
        }
    }

    @Transactional(readOnly = true)
    ImpactSite load(long siteId) {
        sites.site(siteId);
        var services = siteStore.services(siteId);
        return new ImpactSite(
                networks(siteId),
                devices(siteId, services),
                siteStore.partners(siteId).stream()
                        .map(p -> new Partner(p.id(), p.name(), p.address()))
                        .toList(),
                services.stream()
                        .map(s -> new Service(
                                s.id(),
                                s.name(),
                                s.protocol(),
                                s.host(),
                                !s.kinds().isEmpty()))
                        .toList(),
                lists(siteId),
                wires.gear(siteId).stream().map(Impacts::box).toList(),
                store.openings(siteId).stream()
                        .map(o -> new Open(o.endpointId(), o.title(), o.owner()))
                        .toList(),
                firewalls.rules(siteId).size());
    }

    private List<Network> networks(long siteId) {
        var pools = siteStore.pools(siteId);
        return siteStore.segments(siteId).stream()
                .map(s -> new Network(
                        s.id(), s.name(), sites.plain(s, pools), Sites.resolvers(s), Optional.ofNullable(s.vlan())))
                .toList();
    }

    private static Box box(Gear g) {
        return new Box(
                g.id(),
                g.name(),
                g.type() == Gear.Type.ROUTER,
                g.ports().stream()
                        .map(Port::segmentId)
                        .flatMap(Optional::stream)
                        .collect(Collectors.toSet()));
    }

    private List<Book> lists(long siteId) {
        var entries = store.entries(siteId).stream().collect(Collectors.groupingBy(EntryRow::registryId));
        return registrations.registries(siteId).stream()
                .map(r -> new Book(
                        r.id(),
                        r.name(),
                        r.type() == Registry.Type.RESERVATIONS,
                        Optional.ofNullable(r.segmentId()),
                        entries.getOrDefault(r.id(), List.of()).stream()
                                .map(e -> new Entry(
                                        e.endpointId(), e.name(), Optional.ofNullable(e.address()), e.owner()))
                                .toList()))
                .toList();
    }

    private List<Device> devices(long siteId, List<ServiceRow> services) {
        var passed = store.passed(siteId).stream()
                .collect(Collectors.groupingBy(
                        PassedRow::endpointId, Collectors.mapping(PassedRow::key, Collectors.toSet())));
        var mail = store.mail(siteId).stream().collect(Collectors.toMap(MailRow::endpointId, Function.identity()));
        var ports = store.ports(siteId).stream().collect(Collectors.toMap(PortRow::endpointId, Function.identity()));
        var labelled = Set.copyOf(store.labelled(siteId));
        return endpoints.all(siteId).stream()
                .map(e -> {
                    var kind = kinds.get(e.kind());
                    boolean proved = Objects.nonNull(e.confirmedAt());
                    return new Device(
                            e.id(),
                            e.name(),
                            e.place(),
                            e.segmentId(),
                            Optional.ofNullable(e.address()),
                            e.method(),
                            KindTraits.keyed(kind, passed.getOrDefault(e.id(), Set.of()), proved),
                            labelled.contains(e.id()),
                            calls(e, kind, services, mail, ports),
                            KindTraits.upkeep(kind),
                            Objects.isNull(e.partnerId()) ? KindTraits.callers(kind) : "");
                })
                .toList();
    }

    private static Calls calls(
            EndpointStore.Row e,
            Kind kind,
            List<ServiceRow> services,
            Map<Long, MailRow> mail,
            Map<Long, PortRow> ports) {
        // A blank one signs in as nobody: its relay knows it by its address.
        var user = Optional.ofNullable(mail.get(e.id())).map(m -> Objects.toString(m.user(), ""));
        return new Calls(
                Optional.ofNullable(e.partnerId()),
                kind.callsOut(),
                services.stream()
                        .filter(s -> s.calledBy(e.kind()))
                        .map(ServiceRow::id)
                        .collect(Collectors.toSet()),
                KindTraits.clock(kind),
                user.filter(u -> !u.isBlank()),
                KindTraits.sheet(kind, "mail") && user.filter(String::isBlank).isEmpty(),
                KindTraits.sheet(kind, "outage"),
                Optional.ofNullable(ports.get(e.id())).map(p -> new Plug(p.gearId(), p.gear() + " " + p.number())));
    }
}
