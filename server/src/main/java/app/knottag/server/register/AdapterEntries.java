package app.knottag.server.register;

import app.knottag.core.hardware.Mac;
import app.knottag.core.register.Registry;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistryBook;
import java.time.Clock;
import java.util.ArrayList;
import java.util.List;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Propagation;
import org.springframework.transaction.annotation.Transactional;

/** What is registered under the MAC of an adapter goes where the adapter goes. */
@Component
class AdapterEntries {

    private final RegistrationStore store;
    private final RegistryBook book;
    private final Log log;
    private final Clock clock;

    AdapterEntries(RegistrationStore store, RegistryBook book, Log log, Clock clock) {
        this.store = store;
        this.book = book;
        this.log = log;
        this.clock = clock;
    }

    @Transactional(propagation = Propagation.MANDATORY)
    public List<String> move(Mac mac, EndpointStore.Row from, EndpointStore.Row to, String by) {
        var said = new ArrayList<String>();
        var there = store.ofEndpoint(to.id());
        for (var r : store.ofEndpoint(from.id())) {
            if (!mac.equals(r.mac())) continue;
            var row = store.registry(r.registryId());
            if (row == null) continue;
            Registry registry = book.plain(row);
            var other =
                    there.stream().filter(t -> t.registryId() == r.registryId()).findFirst();
            // One unit, one entry: the one that the unit had until now no longer says what joins.
            other.ifPresent(o -> store.change(new Draft(o)
                    .ended(clock.instant(), "The adapter of " + from.name() + " took its place")
                    .row()));
            store.change(new Draft(r).of(to.id()).row());
            said.add(registry.name() + ": the entry “" + r.name() + "” goes along to " + to.name()
                    + other.map(o -> "; its own, “" + o.name() + "”, is taken out")
                            .orElse("")
                    + ". Correct its name, or swap the adapters back.");
            log.write(Log.entry(by, "entry goes along with the adapter in " + registry.name())
                    .at(to.siteId(), to.id())
                    .before(r)
                    .after(store.find(r.id())));
        }
        return said;
    }
}
