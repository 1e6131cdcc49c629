package app.knottag.core.impact;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.impact.ImpactSite.Box;
import app.knottag.core.impact.ImpactSite.Device;
import app.knottag.core.impact.ImpactSite.Network;
import app.knottag.core.impact.Thing.Sort;
import app.knottag.core.kind.Protocol;
import app.knottag.core.plan.Method;
import java.util.HashMap;
import java.util.HashSet;
import java.util.LinkedHashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;

/** What rests on what at a site, as far as it is on record. */
final class Ties {

    static final Thing LINE = new Thing(Sort.LINE, "");
    static final Thing RULES = new Thing(Sort.RULES, "");
    static final Thing LABELS = new Thing(Sort.LABELS, "");
    /** The router of a site that has none on record. */
    static final Thing ROUTER = new Thing(Sort.ROUTER, "");

    private final ImpactSite site;
    private final Set<Tie> all = new LinkedHashSet<>();
    private final List<Thing> routers;
    private final Map<Ipv4Address, Thing> holders = new HashMap<>();
    private final Map<Long, Network> networks = new HashMap<>();
    private final Map<Long, Device> devices = new HashMap<>();

    private Ties(ImpactSite site) {
        this.site = site;
        var boxes = site.gear().stream()
                .filter(Box::router)
                .map(b -> Thing.of(Sort.ROUTER, b.id()))
                .toList();
        routers = boxes.isEmpty() ? List.of(ROUTER) : boxes;
        site.networks().forEach(n -> networks.put(n.id(), n));
        site.devices().forEach(d -> devices.put(d.id(), d));
        for (var n : site.networks())
            n.segment().gateway().ifPresent(g -> holders.put(g, Thing.of(Sort.NETWORK, n.id())));
        site.partners().forEach(p -> holders.put(p.address(), Thing.of(Sort.PARTNER, p.id())));
        site.devices().forEach(d -> d.address().ifPresent(a -> holders.put(a, Thing.device(d.id()))));
    }

    static Set<Tie> of(ImpactSite site) {
        var ties = new Ties(site);
        site.networks().forEach(ties::network);
        site.partners().forEach(ties::partner);
        ties.services();
        ties.rules();
        ties.lists();
        site.devices().stream().filter(Device::keyed).forEach(ties::device);
        site.openings().forEach(o -> ties.add(Thing.device(o.device()), Bond.CLOSED_BY, person(o.owner())));
        ties.routers.forEach(r -> ties.add(r, Bond.FED_BY, LINE));
        return ties.all;
    }

    static Thing person(String name) {
        return new Thing(Sort.PERSON, name.strip().toLowerCase(Locale.ROOT));
    }

    static Thing mailbox(String user) {
        return new Thing(Sort.MAILBOX, user.strip().toLowerCase(Locale.ROOT));
    }

    static Thing resolver(Ipv4Address address) {
        return new Thing(Sort.RESOLVER, address.toString());
    }

    /** The list of reservations of a network for which none is on record. */
    static Thing reservations(long network) {
        return new Thing(Sort.LIST, "of " + network);
    }

    private void add(Thing holder, Bond bond, Thing held) {
        all.add(new Tie(holder, bond, held));
    }

    /** The routers that may serve a network: of several those whose ports say so, or else all. */
    private List<Thing> routersOf(long network) {
        var named = site.gear().stream()
                .filter(b -> b.router() && b.networks().contains(network))
                .map(b -> Thing.of(Sort.ROUTER, b.id()))
                .toList();
        return named.isEmpty() ? routers : named;
    }

    private void network(Network n) {
        var thing = Thing.of(Sort.NETWORK, n.id());
        routersOf(n.id()).forEach(r -> add(thing, Bond.SERVED_BY, r));
        for (var r : n.resolvers()) {
            add(thing, Bond.HANDS_OUT, resolver(r));
            Optional.ofNullable(holders.get(r)).ifPresent(h -> add(resolver(r), Bond.SAME_AS, h));
        }
    }

    private Optional<Network> around(Ipv4Address address) {
        return site.networks().stream()
                .filter(n -> n.segment().prefix().contains(address))
                .findFirst();
    }

    private void partner(ImpactSite.Partner p) {
        around(p.address())
                .ifPresent(n -> add(Thing.of(Sort.PARTNER, p.id()), Bond.KEYED, Thing.of(Sort.NETWORK, n.id())));
    }

    /** A service that is known by its address goes with whoever has that address. */
    private void services() {
        for (var s : site.services())
            Ipv4Address.read(s.host())
                    .flatMap(a -> Optional.ofNullable(holders.get(a)))
                    .ifPresent(h -> add(Thing.of(Sort.SERVICE, s.id()), Bond.SAME_AS, h));
    }

    private void rules() {
        if (site.rules() == 0) return;
        routers.forEach(r -> add(RULES, Bond.STAND_IN, r));
        for (var d : site.devices())
            if (d.keyed() && (d.calls().out() || d.calls().partner().isPresent()))
                add(RULES, Bond.NAME, Thing.device(d.id()));
        site.partners().forEach(p -> add(RULES, Bond.NAME, Thing.of(Sort.PARTNER, p.id())));
    }

    private void lists() {
        var listed = new HashSet<Long>();
        var lent = site.devices().stream()
                .filter(d -> d.keyed() && !d.method().onDevice())
                .map(Device::id)
                .collect(Collectors.toSet());
        for (var list : site.lists()) {
            var thing = Thing.of(Sort.LIST, list.id());
            if (list.reserves()) {
                list.entries().forEach(e -> listed.add(e.device()));
                networksOf(list).forEach(n -> kept(thing, n));
            }
            for (var e : list.entries()) {
                if (e.address().isPresent() && !list.reserves()) add(thing, Bond.HOLDS, Thing.device(e.device()));
                if (list.reserves() && lent.contains(e.device())) add(Thing.device(e.device()), Bond.LISTED, thing);
                if (!e.owner().isBlank()) add(thing, Bond.OWNED_BY, person(e.owner()));
            }
        }
        for (var d : site.devices())
            if (d.keyed() && d.method() == Method.RESERVED && !listed.contains(d.id())) {
                kept(reservations(d.network()), d.network());
                add(Thing.device(d.id()), Bond.LISTED, reservations(d.network()));
            }
    }

    /** The networks of which a list holds addresses. */
    private Set<Long> networksOf(ImpactSite.Book list) {
        return list.network()
                .map(Set::of)
                .orElseGet(() -> list.entries().stream()
                        .flatMap(e -> Optional.ofNullable(devices.get(e.device())).stream())
                        .map(Device::network)
                        .collect(Collectors.toSet()));
    }

    private void kept(Thing list, long network) {
        routersOf(network).forEach(r -> add(list, Bond.KEPT_IN, r));
        add(list, Bond.LISTS, Thing.of(Sort.NETWORK, network));
    }

    private void device(Device d) {
        var thing = Thing.device(d.id());
        var network = Thing.of(Sort.NETWORK, d.network());
        var calls = d.calls();
        add(thing, Bond.SELF, thing);
        add(thing, d.method().onDevice() ? Bond.KEYED : Bond.LENT, network);
        if (d.method().onDevice())
            Optional.ofNullable(networks.get(d.network())).stream()
                    .flatMap(n -> n.resolvers().stream())
                    .forEach(r -> add(thing, Bond.ASKS_NAMES, resolver(r)));
        calls.partner().ifPresent(p -> {
            add(thing, Bond.TALKS_TO, Thing.of(Sort.PARTNER, p));
            add(Thing.of(Sort.PARTNER, p), Bond.POINTS_AT, thing);
        });
        if (calls.out()) routersOf(d.network()).forEach(r -> add(thing, Bond.OUT, r));
        if (calls.out() || partnerElsewhere(d)) {
            add(thing, Bond.THROUGH, network);
            if (site.rules() > 0) add(thing, Bond.PASSES, RULES);
        }
        if (calls.watches()) routers.forEach(r -> add(thing, Bond.WATCHES, r));
        calls.mail().ifPresent(m -> add(thing, Bond.SIGNS_IN, mailbox(m)));
        calls.port().ifPresent(p -> add(thing, Bond.PLUGGED, box(p.gear())));
        for (var s : site.services())
            if (calls.services().contains(s.id()) || s.protocol() == Protocol.NTP && !s.said() && calls.clock())
                add(
                        thing,
                        Ipv4Address.read(s.host()).isPresent() ? Bond.CALLS_ADDRESS : Bond.CALLS_NAME,
                        Thing.of(Sort.SERVICE, s.id()));
        if (d.labelled()) add(LABELS, Bond.SHOW, thing);
    }

    private Thing box(long gear) {
        return site.gear().stream().anyMatch(b -> b.id() == gear && b.router())
                ? Thing.of(Sort.ROUTER, gear)
                : Thing.of(Sort.GEAR, gear);
    }

    /** Whether its partner stands in another network, so that the router is between them. */
    private boolean partnerElsewhere(Device d) {
        return site.partners().stream()
                .filter(p -> d.calls().partner().filter(id -> id == p.id()).isPresent())
                .anyMatch(p -> Optional.ofNullable(networks.get(d.network()))
                        .filter(n -> n.segment().prefix().contains(p.address()))
                        .isEmpty());
    }
}
