package app.knottag.server.register;

import app.knottag.core.hardware.Mac;
import app.knottag.core.register.FactGraph;
import app.knottag.core.register.FactGraph.FactLink;
import app.knottag.core.register.FactGraph.Place;
import app.knottag.core.register.FactGraph.Sort;
import app.knottag.core.register.Registry;
import app.knottag.core.register.Registry.Fact;
import app.knottag.core.register.SwapSheet.Facts;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.InterfaceStore;
import app.knottag.server.record.RegistrationStore;
import app.knottag.server.record.RegistrationStore.RegistrationRow;
import app.knottag.server.record.RegistryBook;
import java.util.ArrayList;
import java.util.EnumMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Set;
import java.util.stream.Stream;
import org.springframework.stereotype.Component;

/** Puts together who holds which fact about an endpoint, from everything on record. */
@Component
class Chains {

    private static final String LABEL = "label";
    private final RegistrationStore store;
    private final RegistryBook book;
    private final InterfaceStore interfaces;
    private final ChainStore words;

    Chains(RegistrationStore store, RegistryBook book, InterfaceStore interfaces, ChainStore words) {
        this.store = store;
        this.book = book;
        this.interfaces = interfaces;
        this.words = words;
    }

    /** Returns every fact at every place, in the order to mend. */
    List<FactLink> links(EndpointStore.Row e) {
        return graph(e).links(truth(e));
    }

    private static Map<Fact, String> truth(EndpointStore.Row e) {
        var truth = new EnumMap<Fact, String>(Fact.class);
        truth.put(Fact.MAC, e.mac() == null ? "" : e.mac().toString());
        truth.put(Fact.SERIAL, e.serial());
        truth.put(Fact.MODEL, e.model());
        truth.put(Fact.ADDRESS, e.address() == null ? "" : e.address().toString());
        return truth;
    }

    private FactGraph graph(EndpointStore.Row e) {
        var places = new ArrayList<Place>();
        var label = truth(e);
        label.remove(Fact.ADDRESS);
        label.values().removeIf(String::isEmpty);
        places.add(new Place(LABEL, "The unit's own label", Sort.LABEL, label, Map.of(), Set.of()));
        for (var row : store.ofEndpoint(e.id())) {
            var kept = store.registry(row.registryId());
            if (kept != null && (row.askedAt() != null || row.enteredAt() != null))
                add(places, book.plain(kept), row, e);
        }
        return new FactGraph(places);
    }

    private void add(List<Place> places, Registry registry, RegistrationRow row, EndpointStore.Row e) {
        var held = RegistryBook.held(row);
        var truth = registry.truth(book.unit(e), held);
        var holds = new EnumMap<Fact, String>(Fact.class);
        var expects = new EnumMap<Fact, String>(Fact.class);
        for (Fact fact : registry.rules().facts()) {
            if (fact == Fact.ISSUED) continue;
            holds.put(fact, held.value(fact));
            expects.put(fact, truth.value(fact));
        }
        if (!row.issued().isEmpty()) holds.put(Fact.ISSUED, row.issued());
        places.add(new Place("r" + row.id(), registry.name(), Sort.REGISTRY, holds, expects, Set.of(LABEL)));
        if (!row.issued().isEmpty())
            places.add(new Place(
                    "a" + row.id(),
                    "Where what " + registry.name() + " issued is used",
                    Sort.ACCOUNT,
                    Map.of(Fact.ISSUED, row.issuedUsed()),
                    Map.of(),
                    Set.of("r" + row.id())));
    }

    /** Whether the notes of an endpoint name the unit that goes. */
    boolean notesName(long endpointId, Facts old) {
        return names(words.notes(endpointId), old);
    }

    private static boolean names(String text, Facts unit) {
        String plain = text.toLowerCase(Locale.ROOT), bare = plain.replaceAll("[:.-]", "");
        return unit.mac().filter(m -> bare.contains(bare(m))).isPresent()
                || (!unit.serial().isEmpty() && plain.contains(unit.serial().toLowerCase(Locale.ROOT)));
    }

    private static String bare(Mac mac) {
        return mac.toString().replace(":", "").toLowerCase(Locale.ROOT);
    }

    /** Returns in sentences where a unit that has gone still stands. */
    List<String> leftovers(EndpointStore.Row e, Facts old, Facts fresh) {
        var found = new ArrayList<String>();
        for (var row : store.ofSite(e.siteId())) {
            if (row.endedAt() != null) continue;
            boolean mac = old.mac().filter(m -> m.equals(row.mac())).isPresent();
            boolean serial = !old.serial().isEmpty()
                    && !old.serial().equals(fresh.serial())
                    && row.serial().equals(old.serial());
            var registry = store.registry(row.registryId());
            if ((mac || serial) && registry != null)
                found.add(registry.name() + " holds " + (mac ? row.mac() : row.serial()) + " as “" + row.name() + "”.");
        }
        Stream.concat(
                        interfaces.ofSite(e.siteId()).stream()
                                .filter(i -> old.mac().filter(i.mac()::equals).isPresent())
                                .map(i -> "An interface of the record has " + i.mac() + "."),
                        notesName(e.id(), old) ? Stream.of("The notes of " + e.name() + " name it.") : Stream.of())
                .forEach(found::add);
        return found;
    }
}
