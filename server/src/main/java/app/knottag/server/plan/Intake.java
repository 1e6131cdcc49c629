package app.knottag.server.plan;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.intake.Draft;
import app.knottag.core.intake.Draft.Parsed;
import app.knottag.core.intake.Draft.Remark;
import app.knottag.core.intake.IntakePlan;
import app.knottag.core.intake.IntakePlan.Made;
import app.knottag.core.intake.IntakePlan.SiteContext;
import app.knottag.core.intake.Listing;
import app.knottag.core.intake.Sheet;
import app.knottag.core.kind.Kinds;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.reading.ReadingException;
import app.knottag.server.change.EndpointForm;
import app.knottag.server.change.EndpointRequest;
import app.knottag.server.change.EndpointWork;
import app.knottag.server.log.Log;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.SightingStore;
import app.knottag.server.record.SightingStore.SightingRow;
import app.knottag.server.record.SitePlans;
import app.knottag.server.web.Problem;
import java.time.Clock;
import java.util.ArrayList;
import java.util.HashMap;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.stereotype.Service;
import org.springframework.transaction.annotation.Transactional;

/** Takes over what a site already has: shown first, then made all or nothing. */
@Service
class Intake {

    /**
     * How to read a text.
     *
     * @param make whether endpoints are made of what is not on record; else it is only noted who was seen where
     * @param home segment for lines without an address, or null
     * @param columns which column means what, counted from 0; empty to go by their names
     */
    record Wish(Source source, boolean make, Long home, Map<Sheet.Column, Integer> columns) {}

    /** An endpoint that is made. */
    record IntakeRow(
            long line,
            String name,
            String kind,
            String kindName,
            @Nullable Ipv4Address address,
            @Nullable Mac mac,
            String place,
            String reason) {}

    /** What comes of a text; with any problem nothing is made. */
    record IntakeView(
            boolean preview,
            List<String> headers,
            Map<Sheet.Column, Integer> columns,
            List<String> unused,
            List<IntakeRow> made,
            int seen,
            List<Remark> known,
            List<Remark> leftOut,
            List<Remark> problems) {}

    private final SightingStore store;
    private final SitePlans plans;
    private final EndpointWork work;
    private final EndpointForm form;
    private final EndpointStore endpointStore;
    private final Kinds kinds;
    private final Log log;
    private final Clock clock;

    Intake(
            SightingStore store,
            SitePlans plans,
            EndpointWork work,
            EndpointForm form,
            EndpointStore endpointStore,
            Kinds kinds,
            Log log,
            Clock clock) {
        this.store = store;
        this.plans = plans;
        this.work = work;
        this.form = form;
        this.endpointStore = endpointStore;
        this.kinds = kinds;
        this.log = log;
        this.clock = clock;
    }

    private record Read(List<String> headers, Map<Sheet.Column, Integer> columns, List<String> unused, Parsed parsed) {
        static Read of(Parsed parsed) {
            return new Read(List.of(), Map.of(), List.of(), parsed);
        }
    }

    private record Judged(IntakeView view, List<Made> made, List<Draft> seen) {}

    IntakeView preview(long siteId, String text, Wish wish) {
        return judge(siteId, text, wish).view();
    }

    private Judged judge(long siteId, String text, Wish wish) {
        var read = read(text, wish);
        var seen = read.parsed().drafts().stream()
                .filter(d -> d.seen() && d.address().isPresent() && d.mac().isPresent())
                .toList();
        var problems = new ArrayList<>(read.parsed().problems());
        var result = problems.isEmpty() && wish.make()
                ? IntakePlan.of(context(siteId, wish), read.parsed().drafts())
                : new IntakePlan.Result(List.of(), List.of(), List.of());
        problems.addAll(result.problems());
        var rows = result.made().stream().map(this::row).toList();
        return new Judged(
                new IntakeView(
                        true,
                        read.headers(),
                        read.columns(),
                        read.unused(),
                        rows,
                        problems.isEmpty() ? seen.size() : 0,
                        result.known(),
                        read.parsed().leftOut(),
                        problems),
                result.made(),
                seen);
    }

    private static Parsed problem(String message) {
        return new Parsed(Optional.empty(), List.of(), List.of(), List.of(new Remark(1, "", message)));
    }

    private Read read(String text, Wish wish) {
        if (wish.source() != Source.SHEET) return Read.of(Listing.read(text, clock.instant()));
        try {
            var sheet = Sheet.read(text);
            var columns = wish.columns().isEmpty() ? sheet.match() : wish.columns();
            return new Read(sheet.headers(), columns, sheet.unused(columns), sheet.drafts(columns, kinds.byWords()));
        } catch (ReadingException e) {
            return Read.of(problem(e.getMessage()));
        }
    }

    private IntakeRow row(Made m) {
        return new IntakeRow(
                m.draft().line(),
                m.name(),
                m.kind(),
                kinds.get(m.kind()).name(),
                m.address(),
                m.draft().mac().orElse(null),
                m.draft().place(),
                m.reason());
    }

    private SiteContext context(long siteId, Wish wish) {
        var plan = plans.plan(siteId);
        var macs = new HashMap<Mac, String>();
        for (var h : endpointStore.holders(siteId)) if (h.mac() != null) macs.put(h.mac(), h.name());
        return new SiteContext(
                plan.segments(),
                plan.living(),
                plan.occupied(clock.instant()),
                macs,
                plan.endpoints().stream()
                        .map(e -> e.name().toLowerCase(Locale.ROOT))
                        .collect(Collectors.toSet()),
                kinds.byWords(),
                Optional.ofNullable(wish.home())
                        .or(() -> plan.segments().stream().findFirst().map(s -> s.id())));
    }

    @Transactional
    IntakeView take(long siteId, String text, Wish wish, String by) {
        var judged = judge(siteId, text, wish);
        var view = judged.view();
        if (!view.problems().isEmpty()) return view;
        if (view.made().isEmpty() && judged.seen().isEmpty())
            throw Problem.field("text", "nothing", "Nothing in it can be taken over.");
        for (var m : judged.made()) work.add(siteId, form.read(siteId, wanted(m)), by);
        var now = clock.instant();
        var seen = judged.seen().stream()
                .map(d -> new SightingRow(
                        d.address().get(),
                        d.mac().orElse(null),
                        wish.source(),
                        now,
                        d.leaseEnds().orElse(null)))
                .toList();
        store.add(siteId, seen, by);
        store.looked(siteId, wish.source(), now);
        log.write(Log.entry(
                        by,
                        "list brought in: " + view.made().size() + " made, "
                                + judged.seen().size() + " seen")
                .at(siteId)
                .after(Map.of(
                        "source",
                        wish.source(),
                        "made",
                        view.made().size(),
                        "seen",
                        judged.seen().size())));
        return new IntakeView(
                false,
                view.headers(),
                view.columns(),
                view.unused(),
                view.made(),
                view.seen(),
                view.known(),
                view.leftOut(),
                view.problems());
    }

    private static EndpointRequest wanted(Made m) {
        var d = m.draft();
        return EndpointRequest.of(
                        m.segmentId(), m.kind(), m.name(), m.address(), "Taken over from a list: " + m.reason())
                .numbered(d.number().orElse(null), null, null)
                .labelled(d.mac().orElse(null), d.serial())
                .wired(d.place(), d.outlet(), d.port())
                .done();
    }
}
