package app.knottag.server.handover;

import app.knottag.core.handover.Label;
import app.knottag.core.handover.LabelDrawing;
import app.knottag.core.handover.LabelGrid;
import app.knottag.core.handover.LabelGrids;
import app.knottag.core.handover.LabelType;
import app.knottag.server.db.Json;
import app.knottag.server.handover.HandoverStore.PrintedRow;
import app.knottag.server.handover.Handovers.Whole;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Sites;
import app.knottag.server.record.WiringStore;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Optional;
import java.util.Set;
import java.util.stream.Collectors;
import java.util.stream.Stream;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.databind.json.JsonMapper;

/** Labels for a site: what goes on which, where it lies on the sheet, and what was printed. */
@Service
public class LabelWork {

    /**
     * What is wanted.
     *
     * @param ids endpoints for tags and flags, gear for port strips, places for place cards; empty for all
     * @param first place of the first label on a half-used sheet, counted from 1
     * @param link what a matrix code leads to before the tag code
     */
    record Wanted(LabelType type, Set<Long> ids, String grid, int first, String link) {}

    /** A sheet that is kept, and its number where it is the shop's own. */
    record KeptGrid(Optional<Long> id, LabelGrid grid) {}

    /** A tag of an endpoint as it is drawn: just what stands on it. */
    record PrintedTag(long endpoint, int sheet, Map<String, String> facts) {}

    /** Labels on their sheets, and the tags among them. */
    record Print(LabelSheet sheet, List<PrintedTag> tags) {}

    private record Named(String name, Label label) {}

    private static final int MOST = 2000;

    private final Handovers handovers;
    private final HandoverStore store;
    private final WiringStore wiring;
    private final Sites sites;
    private final Log log;
    private final Clock clock;
    private final JsonMapper json;

    LabelWork(
            Handovers handovers,
            HandoverStore store,
            WiringStore wiring,
            Sites sites,
            Log log,
            Clock clock,
            JsonMapper json) {
        this.handovers = handovers;
        this.store = store;
        this.wiring = wiring;
        this.sites = sites;
        this.log = log;
        this.clock = clock;
        this.json = json;
    }

    List<KeptGrid> grids() {
        return Stream.concat(
                        LabelGrids.shipped().stream().map(g -> new KeptGrid(Optional.empty(), g)),
                        store.grids().stream()
                                .map(r -> new KeptGrid(
                                        Optional.of(r.id()),
                                        json.readValue(r.grid().text(), LabelGrid.class))))
                .toList();
    }

    @Transactional
    public void keepGrid(LabelGrid grid, String by) {
        if (LabelGrids.shipped().stream().anyMatch(g -> g.name().equalsIgnoreCase(grid.name())))
            throw Problem.field("name", "name-taken", "A sheet of that name comes with Knot Tag. Take another name.");
        store.keepGrid(grid.name(), new Json(json.writeValueAsString(grid)), by);
        log.write(Log.entry(by, "kept a sheet of labels").after(grid));
    }

    @Transactional
    public void dropGrid(long id, String by) {
        if (store.dropGrid(id) == 0) throw Problem.notFound("There is no such sheet of labels any more.");
        log.write(Log.entry(by, "dropped a sheet of labels").before(id));
    }

    /** Draws the labels; keeps nothing. */
    Print draw(long siteId, Wanted wanted) {
        var grid = grids().stream()
                .map(KeptGrid::grid)
                .filter(g -> g.name().equals(wanted.grid()))
                .findFirst()
                .orElseThrow(() -> Problem.field("grid", "no-such-grid", "There is no sheet “" + wanted.grid() + "”."));
        if (wanted.first() < 1 || wanted.first() > grid.labels())
            throw Problem.field(
                    "first",
                    "no-such-place",
                    "The sheet has " + grid.labels() + " places; there is no place " + wanted.first() + ".");
        var labels = labels(siteId, wanted);
        if (labels.isEmpty()) throw Problem.field("ids", "nothing-to-print", nothing(wanted.type()));
        if (labels.size() > MOST)
            throw Problem.field(
                    "ids", "too-many", "At most " + MOST + " labels at a time; these are " + labels.size() + ".");
        var places = grid.lay(wanted.first(), labels.size());
        var placed = new ArrayList<LabelSheet.Placed>();
        var tags = new ArrayList<PrintedTag>();
        for (int i = 0; i < labels.size(); i++) {
            var place = places.get(i);
            var label = labels.get(i);
            var drawn = LabelDrawing.draw(label.label(), place.box(), Fonts.all(), wanted.link());
            placed.add(new LabelSheet.Placed(place.sheet(), place.box(), label.name(), drawn));
            if (label.label() instanceof Label.Tag t)
                tags.add(new PrintedTag(
                        t.facts().endpoint(), place.sheet(), t.facts().without(drawn.left())));
        }
        return new Print(new LabelSheet(grid, placed), tags);
    }

    private static String nothing(LabelType type) {
        return switch (type) {
            case TAG -> "Choose at least one endpoint.";
            case CABLE_FLAG -> "None of these is on a port or an outlet yet. Plan that under Wiring.";
            case PORT -> "The site has no switch or router with ports yet. Add it on the site sheet.";
            case PLACE -> "Nothing stands at a place yet.";
        };
    }

    private List<Named> labels(long siteId, Wanted wanted) {
        var site = sites.site(siteId);
        var all = handovers.site(siteId);
        var some = all.stream()
                .filter(w ->
                        wanted.ids().isEmpty() || wanted.ids().contains(w.row().id()))
                .toList();
        return switch (wanted.type()) {
            case TAG ->
                some.stream()
                        .map(w -> new Named(w.row().name(), (Label) new Label.Tag(w.facts())))
                        .toList();
            case CABLE_FLAG -> some.stream().flatMap(w -> flags(w.row())).toList();
            case PORT -> ports(siteId, wanted, all);
            case PLACE -> cards(siteId, wanted, all, site.name());
        };
    }

    /** Two flags for each lead: from the device to its outlet, and from there to the port. */
    private static Stream<Named> flags(EndpointStore.Row e) {
        var ends = Stream.of(e.name(), e.outlet().isEmpty() ? "" : "outlet " + e.outlet(), e.switchPort())
                .filter(end -> !end.isEmpty())
                .toList();
        var flags = new ArrayList<Named>();
        for (int i = 0; i + 1 < ends.size(); i++) {
            flags.add(new Named(e.name(), new Label.Flag(ends.get(i), ends.get(i + 1), e.tagCode())));
            flags.add(new Named(e.name(), new Label.Flag(ends.get(i + 1), ends.get(i), e.tagCode())));
        }
        return flags.stream();
    }

    private List<Named> ports(long siteId, Wanted wanted, List<Whole> all) {
        var on = new HashMap<String, String>();
        for (var w : all)
            if (!w.row().switchPort().isEmpty())
                on.put(w.row().switchPort(), w.row().name());
        var ports = wiring.ports(siteId);
        var patched = wiring.outlets(siteId).stream()
                .filter(o -> Objects.nonNull(o.portId()))
                .collect(Collectors.toMap(WiringStore.OutletRow::portId, WiringStore.OutletRow::name, (a, b) -> a));
        for (var p : ports) if (patched.containsKey(p.id())) on.putIfAbsent(label(p), "outlet " + patched.get(p.id()));
        return ports.stream()
                .filter(p -> wanted.ids().isEmpty() || wanted.ids().contains(p.gearId()))
                .map(p -> new Named(p.gear(), (Label) new Label.Port(
                        p.number(),
                        on.getOrDefault(
                                label(p),
                                switch (p.role()) {
                                    case LAN -> "";
                                    case WAN -> "WAN";
                                    case UPLINK -> "uplink";
                                    case OFF -> "off";
                                }))))
                .toList();
    }

    private static String label(WiringStore.PortRow port) {
        return port.gear() + " " + port.number();
    }

    private List<Named> cards(long siteId, Wanted wanted, List<Whole> all, String site) {
        Map<String, List<Whole>> by =
                all.stream().collect(Collectors.groupingBy(w -> w.row().place()));
        return wiring.places(siteId).stream()
                .filter(p -> wanted.ids().isEmpty() || wanted.ids().contains(p.id()))
                .filter(p -> by.containsKey(p.name()))
                .map(p -> new Named(p.name(), (Label) new Label.Card(
                        p.name(),
                        site,
                        by.get(p.name()).stream()
                                .map(w -> w.row().name()
                                        + w.facts().address().map(a -> ", " + a).orElse(""))
                                .toList())))
                .toList();
    }

    /** Keeps what stood on the tags that were printed, just as they were drawn. */
    @Transactional
    public void printed(long siteId, List<PrintedTag> tags, String by) {
        var again = store.printed(siteId).stream().map(PrintedRow::endpointId).collect(Collectors.toSet());
        for (var t : tags) {
            store.addPrinted(t.endpoint(), new Json(json.writeValueAsString(t.facts())), clock.instant(), by);
            log.write(Log.entry(by, again.contains(t.endpoint()) ? "printed the tag again" : "printed the tag")
                    .at(siteId, t.endpoint())
                    .after(t.facts()));
        }
    }
}
