package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.Planner;
import app.knottag.core.runbook.Stage;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.core.status.Status;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Runbooks;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Scope;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.stereotype.Component;

/** What is shown of endpoints: how many wait where, lists, what is found, and everything that a tag says. */
@Component
class EndpointViews {

    record StationView(Station station, long waiting, Status status, boolean next) {}

    private final EndpointStore store;
    private final SiteStore siteStore;
    private final Sites sites;
    private final Runbooks runbooks;
    private final Kinds kinds;

    EndpointViews(EndpointStore store, SiteStore siteStore, Sites sites, Runbooks runbooks, Kinds kinds) {
        this.store = store;
        this.siteStore = siteStore;
        this.sites = sites;
        this.runbooks = runbooks;
        this.kinds = kinds;
    }

    private static final int PAGE = 500;
    private static final int LONGEST_QUESTION = 60;

    List<StationView> stations(long siteId) {
        var rows = store.waiting(siteId).stream().collect(Collectors.toMap(w -> w.station(), w -> w));
        var waiting = new HashMap<Station, Long>();
        rows.forEach((station, row) -> waiting.put(station, row.waiting()));
        var next = Stage.next(waiting);
        var views = new ArrayList<StationView>();
        for (Station station :
                List.of(Station.PLAN, Station.REGISTER, Station.ONBOARD, Station.CONFIRM, Station.HANDOVER)) {
            var row = rows.get(station);
            long count = row == null ? 0 : row.waiting();
            Status status = Stage.together(count, row != null && row.failed(), row != null && row.active());
            views.add(new StationView(
                    station, count, status, next.filter(station::equals).isPresent()));
        }
        return views;
    }

    /** A page of the living ones of a site, in the order of their addresses. */
    List<EndpointStore.EndpointLine> page(long siteId, Ipv4Address after, long afterId, int limit) {
        return store.page(siteId, after, afterId, Math.max(1, Math.min(limit, PAGE)));
    }

    /** What any piece of it leads to; a site's own come first. */
    List<EndpointStore.EndpointLine> find(String q, long siteId) {
        // A scanner types the short address that a tag shows.
        String text = q.strip().replaceFirst("(?i)^https?://.*/t/", "").toLowerCase(Locale.ROOT);
        if (text.isEmpty() || text.length() > LONGEST_QUESTION) return List.of();
        return store.search(
                siteId,
                "%" + text.replace("\\", "\\\\").replace("%", "\\%").replace("_", "\\_") + "%",
                Scope.now().list());
    }

    EndpointView view(EndpointStore.Row e) {
        var segment = sites.segment(e.segmentId());
        var context = sites.context(segment, e.address()).segment();
        var kind = kinds.get(e.kind());
        var partner = Optional.ofNullable(e.partnerId()).map(siteStore::partner);
        var others = new HashMap<Ipv4Address, String>();
        store.holders(e.siteId()).stream()
                .filter(h -> h.id() != e.id() && h.address() != null)
                .forEach(h -> others.put(h.address(), h.name()));
        var slips = e.address() == null
                ? List.<String>of()
                : new Planner(context, others).choice(e.address()).oneSlipFrom();
        return new EndpointView(
                e.id(),
                e.siteId(),
                e.segmentId(),
                segment.name(),
                context.prefix(),
                e.kind(),
                kind.name(),
                kind.labelPlace(),
                e.name(),
                e.number(),
                e.address(),
                context.prefix().mask(),
                e.method(),
                e.method().words(),
                e.hostName(),
                e.mac(),
                e.serial(),
                e.model(),
                e.awaySince(),
                e.awayWhy(),
                e.servicePort(),
                partner.map(SiteStore.PartnerRow::name).orElse(""),
                partner.map(SiteStore.PartnerRow::address).orElse(null),
                e.partnerPort(),
                e.place(),
                e.outlet(),
                e.switchPort(),
                e.tagCode(),
                e.station(),
                e.status(),
                standing(e),
                slips,
                e.confirmedAt(),
                e.confirmedBy(),
                e.retiredAt() != null,
                e.version());
    }

    private String standing(EndpointStore.Row e) {
        if (e.retiredAt() != null) return "Retired";
        var runbook = runbooks.runbook(e);
        return switch (e.station()) {
            case PLAN -> "Needs an address";
            case REGISTER ->
                e.mac() == null || e.serial().isEmpty()
                        ? "Needs MAC and serial from the label"
                        : switch (e.status()) {
                            case FAILED -> "A registration has run out";
                            case ACTIVE -> "Handed in, not seen there yet";
                            default -> "Waits to be registered";
                        };
            case ONBOARD -> runbook.current().map(s -> "Next: " + s.title()).orElse("Being set up");
            case CONFIRM -> e.status() == Status.FAILED ? "A check failed" : "Set up, not yet proved";
            case HANDOVER -> "Proved and signed off by " + e.confirmedBy() + ", to be handed over";
            case DONE -> "Handed over";
        };
    }
}
