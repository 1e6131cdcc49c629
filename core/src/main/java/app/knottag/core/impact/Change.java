package app.knottag.core.impact;

import app.knottag.core.impact.ImpactSite.Box;
import app.knottag.core.impact.ImpactSite.Entry;
import app.knottag.core.impact.ImpactSite.Open;
import app.knottag.core.impact.Thing.Sort;
import app.knottag.core.kind.Protocol;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.function.BiConsumer;
import java.util.stream.Stream;

/** A change that somebody thinks of. */
public enum Change {
    ROUTER("The router is replaced", Event.REPLACED, Change::routers),
    SWITCH("A switch or access point is replaced", Event.REPLACED, Change::gear),
    PROVIDER("The provider or the line changes", Event.REPLACED, (site, to) -> to.accept(Ties.LINE, "The line")),
    NETWORK("A network gets other addresses", Event.READDRESSED, Change::networks),
    GATEWAY("A network gets another gateway", Event.REGATED, Change::networks),
    RESOLVER("A resolver changes", Event.READDRESSED, Change::resolvers),
    ADDRESS("A device or partner gets another address", Event.READDRESSED, Change::addresses),
    MAIL_PASSWORD("The password of a mailbox changes", Event.NEW_SECRET, Change::mailboxes),
    TIME_SERVER("The time server goes", Event.GONE, Change::timeServers),
    PERSON("A person leaves", Event.GONE, Change::people),
    PORT("A device moves to another port", Event.MOVED, Change::plugged);

    private final String words;
    private final Event event;
    private final BiConsumer<ImpactSite, BiConsumer<Thing, String>> subjects;

    Change(String words, Event event, BiConsumer<ImpactSite, BiConsumer<Thing, String>> subjects) {
        this.words = words;
        this.event = event;
        this.subjects = subjects;
    }

    /** @param key {@link Thing#sort} and {@link Thing#key}, parted by a colon */
    public record Subject(String key, String name) {}

    public String words() {
        return words;
    }

    Event event() {
        return event;
    }

    /** Returns what it can happen to at a site, by name; empty when nothing of the sort is on record. */
    public List<Subject> subjects(ImpactSite site) {
        var found = Stream.<Subject>builder();
        subjects.accept(site, (thing, name) -> found.add(new Subject(thing.sort() + ":" + thing.key(), name)));
        return found.build()
                .distinct()
                .sorted((a, b) -> a.name().compareToIgnoreCase(b.name()))
                .toList();
    }

    private static void routers(ImpactSite site, BiConsumer<Thing, String> to) {
        if (site.gear().stream().noneMatch(Box::router)) to.accept(Ties.ROUTER, "The router");
        for (var b : site.gear()) if (b.router()) to.accept(Thing.of(Sort.ROUTER, b.id()), b.name());
    }

    private static void gear(ImpactSite site, BiConsumer<Thing, String> to) {
        for (var b : site.gear()) if (!b.router()) to.accept(Thing.of(Sort.GEAR, b.id()), b.name());
    }

    private static void networks(ImpactSite site, BiConsumer<Thing, String> to) {
        for (var n : site.networks())
            to.accept(
                    Thing.of(Sort.NETWORK, n.id()),
                    n.name() + " (" + n.segment().prefix() + ")");
    }

    private static void resolvers(ImpactSite site, BiConsumer<Thing, String> to) {
        for (var n : site.networks()) for (var r : n.resolvers()) to.accept(Ties.resolver(r), r.toString());
    }

    private static void addresses(ImpactSite site, BiConsumer<Thing, String> to) {
        for (var d : site.devices())
            d.address().ifPresent(a -> to.accept(Thing.device(d.id()), d.name() + " (" + a + ")"));
        for (var p : site.partners()) to.accept(Thing.of(Sort.PARTNER, p.id()), p.name() + " (" + p.address() + ")");
    }

    private static void mailboxes(ImpactSite site, BiConsumer<Thing, String> to) {
        for (var d : site.devices())
            d.calls().mail().ifPresent(m -> to.accept(Ties.mailbox(m), m.toLowerCase(Locale.ROOT)));
    }

    private static void timeServers(ImpactSite site, BiConsumer<Thing, String> to) {
        for (var s : site.services())
            if (s.protocol() == Protocol.NTP)
                to.accept(Thing.of(Sort.SERVICE, s.id()), s.name() + " (" + s.host() + ")");
    }

    private static void people(ImpactSite site, BiConsumer<Thing, String> to) {
        var names = Stream.concat(
                site.lists().stream().flatMap(l -> l.entries().stream()).map(Entry::owner),
                site.openings().stream().map(Open::owner));
        var seen = new HashSet<Thing>();
        names.filter(n -> !n.isBlank())
                .map(String::strip)
                .filter(n -> seen.add(Ties.person(n)))
                .forEach(n -> to.accept(Ties.person(n), n));
    }

    private static void plugged(ImpactSite site, BiConsumer<Thing, String> to) {
        for (var d : site.devices())
            d.calls().port().ifPresent(p -> to.accept(Thing.device(d.id()), d.name() + " (" + p.label() + ")"));
    }
}
