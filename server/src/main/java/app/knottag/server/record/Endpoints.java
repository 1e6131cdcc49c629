package app.knottag.server.record;

import app.knottag.core.address.AddressContext;
import app.knottag.core.hardware.Mac;
import app.knottag.core.hardware.MacReader;
import app.knottag.core.hardware.MakerPrefixes;
import app.knottag.core.hardware.SerialReader;
import app.knottag.core.kind.Kinds;
import app.knottag.core.reading.Finding;
import app.knottag.core.reading.Finding.Code;
import app.knottag.core.reading.Reading;
import app.knottag.server.record.InterfaceStore.InterfaceRow;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import java.util.ArrayList;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import org.springframework.stereotype.Service;

/** Endpoints as they are on record, and what is typed about one judged by everything else on record. */
@Service
public class Endpoints {

    private final EndpointStore store;
    private final InterfaceStore interfaceStore;
    private final Sites sites;
    private final Kinds kinds;

    Endpoints(EndpointStore store, InterfaceStore interfaceStore, Sites sites, Kinds kinds) {
        this.store = store;
        this.interfaceStore = interfaceStore;
        this.sites = sites;
        this.kinds = kinds;
    }

    public EndpointStore.Row get(long id) {
        return Optional.ofNullable(store.find(id))
                .filter(e -> Scope.now().sees(e.siteId()))
                .orElseThrow(() -> Problem.notFound("There is no such endpoint."));
    }

    /** Context for reading an address of this endpoint, or of a new one (id 0). */
    public AddressContext context(long siteId, long segmentId, long endpointId) {
        return new AddressContext(
                Optional.of(sites.plain(sites.segment(segmentId))),
                store.addresses(siteId, endpointId),
                Optional.empty());
    }

    /** Reads a MAC for an endpoint and judges it by everything on record, other sites included. */
    public Reading readMac(long siteId, long endpointId, String text) {
        var known = interfaceStore.macs(siteId, endpointId);
        var reading = MacReader.read(text, known, Optional.empty());
        if (reading.value() == null) return reading;
        var mac = Mac.parse(reading.value());
        var holder = Optional.ofNullable(interfaceStore.having(siteId, mac));
        var own = holder.filter(i -> i.endpointId() == endpointId);
        // What was looked at and kept is not asked about again.
        if (own.filter(InterfaceRow::counts).isPresent()) reading = MacReader.read(text, known, Optional.of(mac));
        var more = new ArrayList<>(reading.findings());
        more.replaceAll(f ->
                f.code() == Code.KNOWN ? Finding.of(f.code(), mac + " is on record for " + named(holder) + ".") : f);
        own.filter(i -> !i.counts())
                .ifPresent(i -> more.add(Finding.of(
                        Code.NEIGHBOUR_INTERFACE,
                        mac + " is its " + i.medium().words() + " interface. Is that the one in use?")));
        Optional.ofNullable(store.elsewhere(siteId, mac))
                .ifPresent(e -> more.add(Finding.of(
                        Code.OTHER_SITE,
                        Scope.now().sees(e.siteId())
                                ? mac + " is on record at " + e.site() + " for " + e.name()
                                        + ". Has the unit moved here? Then retire it there."
                                : mac + " is on record at a site where you do not work. Has the unit moved here? Then a"
                                        + " lead retires it there.")));
        Optional.ofNullable(store.find(endpointId))
                .filter(e -> e.siteId() == siteId)
                .map(EndpointStore.Row::kind)
                .flatMap(k -> makers(siteId, endpointId).oddFor(mac, k))
                .ifPresent(said -> more.add(Finding.of(Code.ODD_MAKER, said)));
        return new Reading(reading.value(), reading.notes(), more, reading.slip());
    }

    /** Names of the other endpoints of a site that have some of these MACs. */
    public Map<Mac, String> holders(long siteId, long except, Set<Mac> macs) {
        return interfaceStore.named(siteId, except).stream()
                .filter(n -> macs.contains(n.mac()))
                .collect(Collectors.toMap(InterfaceStore.NamedRow::mac, InterfaceStore.NamedRow::name, (a, b) -> a));
    }

    private String named(Optional<InterfaceRow> holder) {
        return holder.map(i -> store.find(i.endpointId()).name()
                        + (i.counts() ? "" : ", as its " + i.medium().words() + " interface"))
                .orElse("another endpoint");
    }

    private MakerPrefixes makers(long siteId, long except) {
        return new MakerPrefixes(store.makers(siteId, except).stream()
                .map(m -> new MakerPrefixes.Known(m.mac(), m.kind(), m.count()))
                .toList());
    }

    public Reading readSerial(long siteId, String kind, long endpointId, String text) {
        return SerialReader.read(text, kinds.get(kind).serialPattern(), store.serials(siteId, kind, endpointId));
    }
}
