package app.knottag.server.register;

import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Interface.Medium;
import app.knottag.server.change.Consequences;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.InterfaceStore;
import app.knottag.server.record.InterfaceStore.InterfaceRow;
import app.knottag.server.record.Interfaces;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import org.springframework.http.HttpStatus;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Changes the interfaces of an endpoint, and lets an adapter go from one to another. */
@Service
class InterfaceWork {

    private final InterfaceStore store;
    private final Interfaces interfaces;
    private final Endpoints endpoints;
    private final EndpointStore endpointStore;
    private final AdapterEntries entries;
    private final Consequences consequences;
    private final Log log;
    private final Clock clock;

    InterfaceWork(
            InterfaceStore store,
            Interfaces interfaces,
            Endpoints endpoints,
            EndpointStore endpointStore,
            AdapterEntries entries,
            Consequences consequences,
            Log log,
            Clock clock) {
        this.store = store;
        this.interfaces = interfaces;
        this.endpoints = endpoints;
        this.endpointStore = endpointStore;
        this.entries = entries;
        this.consequences = consequences;
        this.log = log;
        this.clock = clock;
    }

    /** Keeps the whole list; what is no longer in it is retired. */
    @Transactional
    public void keep(long endpointId, int expected, List<Interface> wanted, String by) {
        var was = endpoints.get(endpointId);
        var before = store.of(endpointId);
        if (endpointStore.touch(endpointId, expected) == 0) throw Etags.stale();
        var basis = consequences.before(was);
        store.noneCounts(endpointId);
        var now = clock.instant();
        before.stream().filter(i -> wanted.stream().noneMatch(w -> same(w, i))).forEach(i -> store.retire(i.id(), now));
        // Retired first and counted last, so that no two of them clash on the way.
        for (var w : wanted.stream()
                .sorted((a, c) -> Boolean.compare(a.counts(), c.counts()))
                .toList())
            before.stream()
                    .filter(i -> same(w, i))
                    .findFirst()
                    .ifPresentOrElse(i -> store.change(i.id(), w), () -> store.add(endpointId, was.siteId(), w));
        consequences.apply(endpointId, basis, by);
        log.write(Log.entry(by, "interfaces changed")
                .at(was.siteId(), endpointId)
                .before(before)
                .after(store.of(endpointId)));
    }

    private static boolean same(Interface wanted, InterfaceRow row) {
        return wanted.mac().equals(row.mac()) && wanted.medium() == row.medium();
    }

    /** Lets an adapter go to another endpoint; what is registered under its MAC goes along. Returns what that means. */
    @Transactional
    public List<String> move(long interfaceId, long toId, int expected, String by) {
        InterfaceRow adapter = Optional.ofNullable(store.find(interfaceId))
                .filter(i -> i.retiredAt() == null)
                .orElseThrow(() -> Problem.notFound("There is no such interface."));
        var from = endpoints.get(adapter.endpointId());
        var to = endpoints.get(toId);
        if (adapter.medium() != Medium.ADAPTER)
            throw Problem.of(
                    HttpStatus.CONFLICT,
                    "not-an-adapter",
                    "Only an adapter can go to another device; this one is built in.");
        if (to.siteId() != from.siteId() || to.retiredAt() != null || to.id() == from.id())
            throw Problem.field("endpointId", "bad-endpoint", "Choose another living endpoint of this site.");
        store.of(toId).stream()
                .filter(i -> i.medium() == Medium.ADAPTER)
                .findFirst()
                .ifPresent(i -> {
                    throw Problem.conflict(
                            "endpointId",
                            "has-adapter",
                            to.name() + " has an adapter of its own, " + i.mac() + ". Move that one first.",
                            Map.of());
                });
        if (endpointStore.touch(from.id(), expected) == 0) throw Etags.stale();
        var basisFrom = consequences.before(from);
        var basisTo = consequences.before(to);
        store.noneCounts(toId);
        store.move(interfaceId, toId, true);
        var said = new ArrayList<String>();
        said.add("The network sees " + to.name() + " now where it saw " + from.name()
                + ": the identity follows the adapter " + adapter.mac() + ".");
        if (adapter.counts())
            said.add(interfaces
                    .countNext(from.id())
                    .map(m -> from.name() + " joins by " + m + " from now on.")
                    .orElse(from.name() + " has no interface on record any more."));
        said.addAll(entries.move(adapter.mac(), from, to, by));
        for (var e : List.of(from, to)) {
            consequences.apply(e.id(), e == from ? basisFrom : basisTo, by);
            log.write(Log.entry(by, e == from ? "adapter went to " + to.name() : "adapter came from " + from.name())
                    .at(e.siteId(), e.id())
                    .before(adapter)
                    .because(said.get(0)));
        }
        return said;
    }

    /** The interfaces that an endpoint has now, the one that counts first. */
    List<InterfaceRow> of(long endpointId) {
        return store.of(endpointId);
    }
}
