package app.knottag.server.visit;

import app.knottag.core.register.LeadTimes;
import app.knottag.core.visit.Packing;
import app.knottag.server.record.Preparing;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.Sites;
import app.knottag.server.visit.VisitStore.NameRow;
import app.knottag.server.visit.VisitStore.UnitRow;
import app.knottag.server.visit.VisitStore.VisitRow;
import java.time.ZoneId;
import java.util.List;
import java.util.Map;
import java.util.Set;
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
    private final Runbooks runbooks;
    private final Sites sites;
    private final Preparing preparing;

    VisitPreparation(VisitStore store, Runbooks runbooks, Sites sites, Preparing preparing) {
        this.store = store;
        this.runbooks = runbooks;
        this.sites = sites;
        this.preparing = preparing;
    }

    PreparationView view(VisitRow row, int people) {
        var jobs = runbooks.jobs(row.siteId(), units(row.id()));
        var names = store.names(row.id()).stream().collect(Collectors.toMap(NameRow::endpointId, n -> n));
        return new PreparationView(
                Packing.of(jobs, people),
                Packing.needs(jobs).stream().map(n -> need(n, names)).toList());
    }

    private Set<Long> units(long id) {
        return store.units(id).stream().map(UnitRow::endpointId).collect(Collectors.toSet());
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

    /** Puts on the site's list what this visit needs. */
    void order(VisitRow row, String by) {
        var zone = ZoneId.of(sites.site(row.siteId()).zone());
        var needed = Packing.needs(runbooks.jobs(row.siteId(), units(row.id()))).stream()
                .map(n -> new LeadTimes.Item(
                        name(n, row), n.order().who(), n.order().days(), "", false))
                .toList();
        preparing.prepare(row.siteId(), row.begins().atZone(zone).toLocalDate(), needed, by);
    }

    private static String name(Packing.Need need, VisitRow row) {
        String name = need.order().name() + " for " + row.name();
        return name.length() > LONGEST ? name.substring(0, LONGEST) : name;
    }
}
