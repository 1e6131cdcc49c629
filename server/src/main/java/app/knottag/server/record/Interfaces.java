package app.knottag.server.record;

import app.knottag.core.hardware.Interface;
import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.hardware.Mac;
import app.knottag.server.record.InterfaceStore.InterfaceRow;
import java.time.Clock;
import java.util.Comparator;
import java.util.Objects;
import java.util.Optional;
import org.springframework.stereotype.Component;

/** Keeps which interface of an endpoint counts. */
@Component
public class Interfaces {

    private final InterfaceStore store;
    private final Clock clock;

    Interfaces(InterfaceStore store, Clock clock) {
        this.store = store;
        this.clock = clock;
    }

    /** Makes a MAC the one that counts; the one before is retired, unless it is another interface of the same box. */
    public void count(long siteId, long endpointId, Mac mac) {
        var own = store.of(endpointId);
        var was = own.stream().filter(InterfaceRow::counts).findFirst();
        if (Objects.equals(was.map(InterfaceRow::mac).orElse(null), mac)) return;
        var known = own.stream().filter(i -> i.mac().equals(mac)).findFirst();
        if (known.isPresent()) {
            store.noneCounts(endpointId);
            var i = known.get();
            store.change(i.id(), new Interface(i.medium(), i.mac(), i.standsAt(), true));
            return;
        }
        was.ifPresent(i -> store.retire(i.id(), clock.instant()));
        if (mac != null)
            store.add(
                    endpointId,
                    siteId,
                    new Interface(
                            was.map(InterfaceRow::medium).orElse(Medium.WIRED),
                            mac,
                            was.map(InterfaceRow::standsAt).orElse(""),
                            true));
    }

    /** Lets the next best interface count when the one that did has gone; wired comes before wireless. */
    public Optional<Mac> countNext(long endpointId) {
        var own = store.of(endpointId);
        if (own.stream().anyMatch(InterfaceRow::counts)) return Optional.empty();
        var next = own.stream().min(Comparator.comparing(InterfaceRow::medium));
        next.ifPresent(i -> store.change(i.id(), new Interface(i.medium(), i.mac(), i.standsAt(), true)));
        return next.map(InterfaceRow::mac);
    }

    public void retireAll(long endpointId) {
        store.retireAll(endpointId, clock.instant());
    }
}
