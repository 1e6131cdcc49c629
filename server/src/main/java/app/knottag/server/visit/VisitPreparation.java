package app.knottag.server.visit;

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

    /** Puts on the list of each site what this visit needs there. */
    void order(VisitRow row, String by) {
        store.units(row.id()).stream()
                .collect(Collectors.groupingBy(UnitRow::siteId))
                .forEach((siteId, units) -> order(siteId, units, row, by));
    }

    private void order(long siteId, List<UnitRow> units, VisitRow row, String by) {
        var zone = ZoneId.of(sites.site(siteId).zone());
        var needed = Packing.needs(route.jobs(units)).stream()
                .map(n -> new LeadTimes.Item(
                        name(n, row), n.order().who(), n.order().days(), "", false))
                .toList();
        preparing.prepare(siteId, row.begins().atZone(zone).toLocalDate(), needed, by);
    }

    private static String name(Packing.Need need, VisitRow row) {
        String name = need.order().name() + " for " + row.name();
        return name.length() > LONGEST ? name.substring(0, LONGEST) : name;
    }
}
