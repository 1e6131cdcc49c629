package app.knottag.server.plan;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.log.Words;
import app.knottag.core.plan.Scheme;
import app.knottag.core.reading.Reading;
import app.knottag.core.series.Series;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.TimeReader;
import app.knottag.core.time.TimeReader.Form;
import app.knottag.server.plan.SegmentForm.SegmentRequest;
import app.knottag.server.record.EndpointStore;
import app.knottag.server.record.Ground;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Objects;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Sites and segments over HTTP. */
@RestController
class SiteController {

    record SiteRequest(
            @NotNull String name,
            @NotNull String code,
            @NotNull String zone,
            DateStyle dates) {}

    record SiteCreated(long id) {}

    /** A way to write days and times, with the patterns that pages show them by. */
    record DateStyleView(DateStyle style, String day, String brief, String time, String example) {
        static DateStyleView of(DateStyle s) {
            return new DateStyleView(s, s.dayPattern(), s.briefPattern(), s.timePattern(), s.moment(EXAMPLE));
        }
    }

    private static final LocalDateTime EXAMPLE = LocalDateTime.of(2026, 3, 29, 14, 5);

    /** A stretch of host numbers on the tape of a segment. */
    record Stretch(String name, long fromHost, long toHost) {}

    record SegmentView(
            long id,
            String name,
            Ipv4Prefix prefix,
            Ipv4Address mask,
            @Nullable Ipv4Address gateway,
            @Nullable Long gatewayHost,
            List<Ipv4Address> resolvers,
            long lastHost,
            List<Stretch> pools,
            List<Stretch> series,
            long fixable,
            long living) {}

    record PartnerView(long id, String name, Ipv4Address address) {}

    record SiteView(
            long id,
            String name,
            String code,
            String zone,
            String zoneNow,
            DateStyleView dates,
            Instant now,
            List<SegmentView> segments,
            List<PartnerView> partners) {}

    private final Sites sites;
    private final SiteStore store;
    private final Ground ground;
    private final EndpointStore endpoints;
    private final Idempotency idempotency;
    private final Clock clock;

    SiteController(
            Sites sites,
            SiteStore store,
            EndpointStore endpoints,
            Idempotency idempotency,
            Clock clock,
            Ground ground) {
        this.sites = sites;
        this.store = store;
        this.ground = ground;
        this.endpoints = endpoints;
        this.idempotency = idempotency;
        this.clock = clock;
    }

    @GetMapping("/api/sites")
    List<SiteStore.SummaryRow> all() {
        return store.summaries();
    }

    @GetMapping("/api/zones")
    Set<String> zones() {
        return new TreeSet<>(ZoneId.getAvailableZoneIds());
    }

    @GetMapping("/api/date-styles")
    List<DateStyleView> dateStyles() {
        return Stream.of(DateStyle.values()).map(DateStyleView::of).toList();
    }

    record TimeReadRequest(@NotNull String text, @NotNull Form form) {}

    /** Reads a day or a time while it is typed; changes nothing. */
    @PostMapping("/api/sites/{siteId}/time/read")
    Reading readTime(@PathVariable long siteId, @Valid @RequestBody TimeReadRequest body) {
        return TimeReader.read(body.text(), body.form(), sites.site(siteId).dates());
    }

    @GetMapping("/api/sites/{siteId}")
    SiteView one(@PathVariable long siteId) {
        var site = sites.site(siteId);
        var pools = store.pools(siteId);
        var series = store.series(siteId);
        var segments = store.segments(siteId).stream()
                .map(row -> view(row, sites.plain(row, pools), series))
                .toList();
        var partners = store.partners(siteId).stream()
                .map(p -> new PartnerView(p.id(), p.name(), p.address()))
                .toList();
        return new SiteView(
                site.id(),
                site.name(),
                site.code(),
                site.zone(),
                ZoneId.of(site.zone()).getRules().getOffset(clock.instant()).getId(),
                DateStyleView.of(site.dates()),
                clock.instant(),
                segments,
                partners);
    }

    private SegmentView view(SiteStore.SegmentRow row, Segment segment, List<SiteStore.SeriesRow> series) {
        long network = row.prefix().network().number();
        var pools = segment.pools().stream()
                .map(p ->
                        new Stretch("Handed out automatically", p.from().number() - network, p.to().number() - network))
                .toList();
        var stretches = series.stream()
                .filter(s -> Objects.equals(s.segmentId(), row.id()))
                .map(s -> new Stretch(
                        s.name(), s.hostBase() + 1L, s.hostBase() + (long) Math.max(1, Sites.room(s, segment, series))))
                .toList();
        return new SegmentView(
                row.id(),
                row.name(),
                row.prefix(),
                row.prefix().mask(),
                row.gateway(),
                row.gateway() == null ? null : row.gateway().number() - network,
                Sites.resolvers(row),
                row.prefix().last().number() - network,
                pools,
                stretches,
                segment.fixableHosts(),
                endpoints.livingIn(row.id()));
    }

    @PostMapping("/api/sites")
    @ResponseStatus(HttpStatus.CREATED)
    SiteCreated add(
            @Valid @RequestBody SiteRequest body,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        var errors = new ArrayList<FieldError>();
        Words.problem(body.name(), true).ifPresent(p -> errors.add(new FieldError("/name", "bad-name", p)));
        if (body.name().length() < 2 || body.name().length() > 80)
            errors.add(new FieldError("/name", "bad-name", "A name has 2 to 80 characters."));
        if (!body.code().matches("[A-Z]{2,5}"))
            errors.add(
                    new FieldError("/code", "bad-code", "A site code has two to five capital letters, such as PGB."));
        if (!ZoneId.getAvailableZoneIds().contains(body.zone()))
            errors.add(new FieldError(
                    "/zone", "bad-zone", "“" + body.zone() + "” is no time zone. Choose one from the list."));
        if (!errors.isEmpty()) throw Problem.fields(errors);
        return SheetConflicts.guard(
                "",
                () -> idempotency.once(
                        by.getName(),
                        key,
                        body,
                        SiteCreated.class,
                        () -> new SiteCreated(sites.add(
                                body.name().strip(),
                                body.code(),
                                body.zone(),
                                body.dates() == null ? DateStyle.WORDS : body.dates(),
                                by.getName()))));
    }

    @PostMapping("/api/sites/{siteId}/segments")
    @ResponseStatus(HttpStatus.CREATED)
    SiteCreated addSegment(
            @PathVariable long siteId,
            @Valid @RequestBody SegmentRequest body,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        sites.site(siteId);
        var filled = SegmentForm.read(siteId, 0, body);
        ground.check(filled.segment().prefix());
        store.segments(siteId).stream()
                .filter(s -> s.prefix().overlaps(filled.segment().prefix()))
                .findFirst()
                .ifPresent(o -> {
                    throw Problem.conflict(
                            "prefix",
                            "segment-overlap",
                            filled.segment().prefix() + " overlaps " + o.name() + ", " + o.prefix() + ".",
                            Map.of());
                });
        return SheetConflicts.guard(
                "",
                () -> idempotency.once(by.getName(), key, body, SiteCreated.class, () -> {
                    long id = sites.addSegment(filled.row(), filled.segment().pools(), filled.series(), by.getName());
                    if (body.likeSegmentId() != null) sites.copySeries(siteId, id, body.likeSegmentId());
                    return new SiteCreated(id);
                }));
    }

    /** A segment of any site that another one may be laid out like. */
    record SchemeLine(long segmentId, String name, int prefixLength) {}

    /** A prefix laid out like a segment. */
    record SchemeView(
            @Nullable Ipv4Address gateway, List<Ipv4Address> resolvers, List<Pool> pools, List<String> series) {}

    @GetMapping("/api/schemes")
    List<SchemeLine> schemes() {
        return store.summaries().stream()
                .flatMap(site -> store.segments(site.id()).stream()
                        .map(s -> new SchemeLine(
                                s.id(),
                                site.name() + ", " + s.name(),
                                s.prefix().prefixLength())))
                .toList();
    }

    @GetMapping("/api/schemes/{segmentId}")
    SchemeView scheme(@PathVariable long segmentId, @RequestParam String prefix) {
        var row = sites.segment(segmentId);
        var reading = AddressReader.read(prefix, Purpose.PREFIX, AddressContext.NONE);
        if (!reading.usable())
            throw Problem.field("prefix", "bad-prefix", "Type the prefix first; then it is laid out alike.");
        var series = store.series(row.siteId()).stream()
                .filter(s -> Objects.equals(s.segmentId(), segmentId))
                .map(Sites::plain)
                .toList();
        var filled = Scheme.of(sites.plain(row), Sites.resolvers(row), series).fill(Ipv4Prefix.parse(reading.value()));
        return new SchemeView(
                filled.segment().gateway().orElse(null),
                filled.resolvers(),
                filled.segment().pools(),
                filled.series().stream().map(Series::name).toList());
    }
}
