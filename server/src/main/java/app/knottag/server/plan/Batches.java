package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.Method;
import app.knottag.core.plan.Occupied;
import app.knottag.core.plan.Placement;
import app.knottag.core.plan.Placement.Request;
import app.knottag.core.series.Series.Counts;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.change.Numbering;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SitePlans;
import app.knottag.server.record.SiteStore.PartnerRow;
import app.knottag.server.record.Sites;
import app.knottag.server.web.FormReader;
import app.knottag.server.web.Problem;
import jakarta.validation.constraints.NotNull;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashSet;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.TreeSet;
import java.util.regex.Pattern;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Many endpoints of one kind at once, such as a PIN pad for each of the tills 1 to 8. */
@Service
class Batches {

    private static final int MOST = 250;
    private static final Pattern RUN = Pattern.compile("([0-9]{1,4})(?:\\s*(?:-|–|to|\\.\\.)\\s*([0-9]{1,4}))?");

    /** What is wanted; numbers as people write them: “1 to 8, 11”. */
    record BatchRequest(
            @NotNull String kind,
            @NotNull Long segmentId,
            Long seriesId,
            String numbers,
            Integer count,
            String place) {}

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
    private final Kinds kinds;
    private final Clock clock;

    Batches(
            Numbering numbering,
            EndpointWork work,
            EndpointForm form,
            EndpointStore store,
            Proposals proposals,
            SitePlans plans,
            Sites sites,
            Kinds kinds,
            Clock clock) {
        this.numbering = numbering;
        this.work = work;
        this.form = form;
        this.store = store;
        this.proposals = proposals;
        this.plans = plans;
        this.sites = sites;
        this.kinds = kinds;
        this.clock = clock;
    }

    /** Reads “1 to 8, 11” as numbers in order. */
    static TreeSet<Integer> numbers(String text) {
        var numbers = new TreeSet<Integer>();
        for (String part : text.split("[,;]")) {
            if (part.isBlank()) continue;
            var run = RUN.matcher(part.strip());
            if (!run.matches())
                throw Problem.field(
                        "numbers",
                        "bad-numbers",
                        "“" + part.strip() + "” is no number or run. Type 1 to 8, or 1, 3, 5.");
            int from = Integer.parseInt(run.group(1));
            int to = run.group(2) == null ? from : Integer.parseInt(run.group(2));
            if (from < 1 || to < from)
                throw Problem.field(
                        "numbers", "bad-numbers", "“" + part.strip() + "” does not run upwards from 1 or more.");
            if (to - from >= MOST || numbers.size() > MOST)
                throw Problem.field("numbers", "too-many", "At most " + MOST + " at once.");
            for (int n = from; n <= to; n++) numbers.add(n);
        }
        return numbers;
    }

    BatchView preview(long siteId, BatchRequest wanted) {
        var kind = kinds.find(wanted.kind())
                .orElseThrow(() -> Problem.field("kind", "no-such-kind", "There is no kind “" + wanted.kind() + "”."));
        var segment = sites.segmentOf(siteId, wanted.segmentId());
        var series = numbering
                .seriesOf(siteId, kind, wanted.seriesId())
                .filter(s -> s.segmentId() == null || s.segmentId().equals(wanted.segmentId()));
        var members = new ArrayList<Optional<Integer>>();
        if (series.isPresent())
            numbers(wanted.numbers() == null ? "" : wanted.numbers()).forEach(n -> members.add(Optional.of(n)));
        else for (int i = 0; i < (wanted.count() == null ? 0 : wanted.count()); i++) members.add(Optional.empty());
        if (members.isEmpty())
            throw Problem.field(
                    series.isPresent() ? "numbers" : "count",
                    "missing",
                    series.isPresent() ? "Say which numbers, such as 1 to 8." : "Say how many.");
        if (members.size() > MOST) throw Problem.field("count", "too-many", "At most " + MOST + " at once.");
        series.ifPresent(s -> {
            var taken = store.numbers(s.id());
            members.stream()
                    .flatMap(Optional::stream)
                    .filter(taken::contains)
                    .findFirst()
                    .ifPresent(n -> {
                        throw Problem.conflict(
                                "numbers",
                                "number-taken",
                                "Number " + n + " is given already. Leave it out.",
                                Map.of());
                    });
        });
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
    BatchView make(long siteId, BatchRequest wanted, String by) {
        String place = FormReader.words("place", wanted.place(), false);
        var view = preview(siteId, wanted);
        if (view.rows().isEmpty()) throw Problem.field("numbers", "no-room", view.clash());
        var kind = kinds.get(wanted.kind());
        var segment = sites.segment(wanted.segmentId());
        var method = Method.advise(kind.reached(), segment.canReserve(), segment.method())
                .method();
        for (var row : view.rows()) {
            var partner = proposals.partner(siteId, numbering.seriesOf(siteId, kind, wanted.seriesId()), row.number());
            work.add(
                    siteId,
                    form.read(
                            siteId,
                            EndpointRequest.of(wanted.segmentId(), kind.id(), row.name(), row.address(), row.reason())
                                    .numbered(row.number(), wanted.seriesId(), row.servicePort())
                                    .wired(place, null, null)
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
