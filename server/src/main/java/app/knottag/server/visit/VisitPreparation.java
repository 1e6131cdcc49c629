package app.knottag.server.visit;

import app.knottag.core.kind.Outfit;
import app.knottag.core.register.LeadTimes;
import app.knottag.core.visit.Packing;
import app.knottag.server.record.Preparing;
import app.knottag.server.record.Sites;
import app.knottag.server.visit.VisitStore.NameRow;
import app.knottag.server.visit.VisitStore.UnitRow;
import app.knottag.server.visit.VisitStore.VisitRow;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What goes along to a visit, who is asked and what is ordered before it. */
@Component
class VisitPreparation {

    private static final int LONGEST = 120;

    /** @param units what it is for, with the serial where it is asked for by that */
    record NeedView(String name, String who, int days, List<String> units) {}

    record PreparationView(Packing packing, List<NeedView> needs) {}

    private final VisitStore store;
    private final Route route;
    private final Sites sites;
    private final Preparing preparing;

    VisitPreparation(VisitStore store, Route route, Sites sites, Preparing preparing) {
        this.store = store;
        this.route = route;
        this.sites = sites;
        this.preparing = preparing;
    }

    PreparationView view(VisitRow row, int people) {
        var jobs = route.jobs(store.units(row.id()));
        var names = store.names(row.id()).stream().collect(Collectors.toMap(NameRow::endpointId, n -> n));
        return new PreparationView(
                Packing.of(jobs, people),
                Packing.needs(jobs).stream().map(n -> need(n, names)).toList());
    }

    private static NeedView need(Packing.Need n, Map<Long, NameRow> names) {
        return new NeedView(
                n.order().name(),
                n.order().who(),
                n.order().days(),
                n.units().stream()
                        .map(names::get)
                        .map(u -> n.order().bySerial() ? u.name() + ", " + serial(u) : u.name())
                        .toList());
    }

    private static String serial(NameRow unit) {
        return unit.serial().isEmpty() ? "serial not read yet" : unit.serial();
    }

    /**
     * Something that a visit needs at a site.
     *
     * @param name what it is called on the list there
     */
    record Ordered(long siteId, Outfit.Order order, String name) {}

    /** What a visit needs at each site. */
    List<Ordered> ordered(VisitRow row) {
        return store.units(row.id()).stream().collect(Collectors.groupingBy(UnitRow::siteId)).entrySet().stream()
                .flatMap(e -> Packing.needs(route.jobs(e.getValue())).stream()
                        .map(n -> new Ordered(e.getKey(), n.order(), name(n.order(), row))))
                .toList();
    }

    /**
     * Puts on the list of each site what this visit needs there.
     *
     * @param were what it needed before it was changed: that goes by the visit's name of now, or off the list
     */
    void order(VisitRow row, List<Ordered> were, String by) {
        var needed = ordered(row);
        for (var was : were) {
            var now = needed.stream()
                    .filter(n -> n.siteId == was.siteId && n.order.equals(was.order))
                    .findFirst();
            if (now.isPresent()) preparing.rename(was.siteId, was.name, now.get().name, by);
            else preparing.withdraw(was.siteId, was.name, by);
        }
        var sites =
                store.units(row.id()).stream().map(UnitRow::siteId).distinct().toList();
        for (long siteId : sites)
            preparing.prepare(
                    siteId,
                    row.begins().atZone(zone(siteId)).toLocalDate(),
                    needed.stream()
                            .filter(n -> n.siteId == siteId)
                            .map(n -> new LeadTimes.Item(n.name, n.order.who(), n.order.days(), "", false))
                            .toList(),
                    by);
    }

    private ZoneId zone(long siteId) {
        return ZoneId.of(sites.site(siteId).zone());
    }

    private static String name(Outfit.Order order, VisitRow row) {
        String name = order.name() + " for " + row.name();
        return name.length() > LONGEST ? name.substring(0, LONGEST) : name;
    }
}
