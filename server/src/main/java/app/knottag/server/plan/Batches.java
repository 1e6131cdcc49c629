package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.plan.Method;
import app.knottag.core.plan.Occupied;
import app.knottag.core.plan.Placement;
import app.knottag.core.plan.Placement.Request;
import app.knottag.core.series.Series.Counts;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.change.Numbering;
import app.knottag.server.plan.BatchForm.BatchWish;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore.PartnerRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Many endpoints of one kind at once, such as a PIN pad for each of the tills 1 to 8. */
@Service
class Batches {

    /** One of many, and why it goes there. */
    record BatchRow(
            @Nullable Integer number,
            String name,
            Ipv4Address address,
            long host,
            @Nullable Integer servicePort,
            String partner,
            String reason) {}

    /** What would be made, or was. */
    record BatchView(boolean preview, List<BatchRow> rows, String clash, List<String> leastChanges) {}

    private final Numbering numbering;
    private final EndpointWork work;
    private final EndpointForm form;
    private final EndpointStore store;
    private final Proposals proposals;
    private final SitePlans plans;
    private final Sites sites;
    private final Clock clock;

    Batches(
            Numbering numbering,
            EndpointWork work,
            EndpointForm form,
            EndpointStore store,
            Proposals proposals,
            SitePlans plans,
            Sites sites,
            Clock clock) {
        this.numbering = numbering;
        this.work = work;
        this.form = form;
        this.store = store;
        this.proposals = proposals;
        this.plans = plans;
        this.sites = sites;
        this.clock = clock;
    }

    BatchView preview(BatchWish wish) {
        long siteId = wish.segment().siteId();
        var kind = wish.kind();
        var segment = wish.segment();
        var series = wish.series();
        var members = wish.members();
        var occupied = plans.occupied(siteId, clock.instant());
        var requests = new ArrayList<Request>();
        var names = names(siteId, kind.name(), members.size());
        for (int i = 0; i < members.size(); i++) {
            var n = members.get(i);
            String name = n.isPresent() ? proposals.name(siteId, kind, series, n.get()) : names.get(i);
            var own = series.filter(s -> s.counts() == Counts.HOST)
                    .flatMap(s -> Sites.plain(s).address(segment.prefix(), n.get()));
            requests.add(new Request(name, own, List.of()));
        }
        return new Placement(sites.plain(segment), occupied)
                .place(requests)
                .match(
                        placed -> {
                            var rows = new ArrayList<BatchRow>();
                            for (int i = 0; i < members.size(); i++) {
                                var n = members.get(i).orElse(null);
                                var given = placed.given().get(i);
                                var a = given.choice().address();
                                rows.add(new BatchRow(
                                        n,
                                        given.request().name(),
                                        a,
                                        a.number() - segment.prefix().network().number(),
                                        numbering.servicePort(kind, n == null ? Optional.empty() : series, n),
                                        proposals
                                                .partner(siteId, series, n)
                                                .map(p -> p.name())
                                                .orElse(""),
                                        reason(given, segment.prefix(), occupied)));
                            }
                            return new BatchView(true, rows, "", List.of());
                        },
                        clash -> new BatchView(true, List.of(), clash.clash(), clash.leastChanges()));
    }

    private List<String> names(long siteId, String base, int count) {
        var taken = new HashSet<String>();
        store.holders(siteId).forEach(h -> taken.add(h.name().toLowerCase(Locale.ROOT)));
        var names = new ArrayList<String>();
        for (int i = 1; names.size() < count; i++)
            if (taken.add((base + " " + i).toLowerCase(Locale.ROOT))) names.add(base + " " + i);
        return names;
    }

    private static String reason(Placement.Given given, Ipv4Prefix prefix, Occupied occupied) {
        String doubt = occupied.doubtful().getOrDefault(given.choice().address(), "");
        String look = doubt.isEmpty() ? "" : " Doubtful: " + doubt + ". Look before you give it.";
        if (given.asWanted())
            return (given.request().wanted().isPresent() ? "By its number." : "The next safe one.") + look;
        var wanted = given.request().wanted().get();
        String holder = occupied.held().getOrDefault(wanted, "");
        return wanted + (holder.isEmpty() ? " is not free in " + prefix : ": " + holder)
                + "; the safest free one instead." + look;
    }

    @Transactional
    BatchView make(BatchWish wish, String by) {
        var view = preview(wish);
        if (view.rows().isEmpty()) throw Problem.field("numbers", "no-room", view.clash());
        var segment = wish.segment();
        long siteId = segment.siteId();
        var method = Method.advise(wish.kind().reached(), segment.canReserve(), segment.method())
                .method();
        for (var row : view.rows()) {
            var partner = proposals.partner(siteId, wish.series(), row.number());
            work.add(
                    siteId,
                    form.read(
                            siteId,
                            EndpointRequest.of(segment.id(), wish.kind().id(), row.name(), row.address(), row.reason())
                                    .numbered(
                                            row.number(),
                                            wish.series().map(s -> s.id()).orElse(null),
                                            row.servicePort())
                                    .wired(wish.place(), null, null)
                                    .paired(
                                            partner.map(PartnerRow::name).orElse(null),
                                            partner.map(PartnerRow::address).orElse(null),
                                            null)
                                    .kept(method)
                                    .done()),
                    by);
        }
        return new BatchView(false, view.rows(), "", List.of());
    }
}
