package app.knottag.server.plan;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Purpose;
import app.knottag.core.log.Words;
import app.knottag.core.reading.Reading;
import app.knottag.core.time.DateStyle;
import app.knottag.core.time.TimeReader;
import app.knottag.core.time.TimeReader.Form;
import app.knottag.server.plan.SegmentForm.SegmentRequest;
import app.knottag.server.record.SegmentGuard;
import app.knottag.server.record.SiteCopies;
import app.knottag.server.record.SiteStore;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.LocalDateTime;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import java.util.stream.Stream;
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

    /** @param likeSiteId a site whose layout, series, registries and plan it begins with, without any unit */
    record SiteRequest(
            @NotNull String name,
            @NotNull String code,
            @NotNull String zone,
            DateStyle dates,
            Long likeSiteId) {}

    record SiteCreated(long id) {}

    /** A way to write days and times, with the patterns that pages show them by. */
    record DateStyleView(DateStyle style, String day, String brief, String time, String example) {
        static DateStyleView of(DateStyle s) {
            return new DateStyleView(s, s.dayPattern(), s.briefPattern(), s.timePattern(), s.moment(EXAMPLE));
        }
    }

    private static final LocalDateTime EXAMPLE = LocalDateTime.of(2026, 3, 29, 14, 5);

    private final Sites sites;
    private final SegmentGuard guard;
    private final SiteCopies copies;
    private final Idempotency idempotency;

    private final SiteViews views;

    SiteController(Sites sites, Idempotency idempotency, SegmentGuard guard, SiteCopies copies, SiteViews views) {
        this.copies = copies;
        this.views = views;
        this.sites = sites;
        this.guard = guard;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/sites")
    List<SiteStore.SummaryRow> all() {
        return views.all();
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
    SiteViews.SiteView one(@PathVariable long siteId) {
        return views.one(siteId);
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
                        by.getName(), key, List.of(body), SiteCreated.class, () -> added(body, by.getName())));
    }

    private SiteCreated added(SiteRequest body, String by) {
        var like = Optional.ofNullable(body.likeSiteId());
        like.ifPresent(sites::site);
        long id = sites.add(
                body.name().strip(),
                body.code(),
                body.zone(),
                Optional.ofNullable(body.dates()).orElse(DateStyle.WORDS),
                by);
        like.ifPresent(from -> copies.take(from, id, by));
        return new SiteCreated(id);
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
        guard.check(filled.segment().prefix());
        return SheetConflicts.guard(
                "",
                () -> idempotency.once(by.getName(), key, List.of(siteId, body), SiteCreated.class, () -> {
                    sites.refuseOverlap(siteId, 0, filled.segment().prefix());
                    long id = sites.addSegment(filled.row(), filled.segment().pools(), filled.series(), by.getName());
                    if (body.likeSegmentId() != null) sites.copySeries(siteId, id, body.likeSegmentId());
                    return new SiteCreated(id);
                }));
    }

    @GetMapping("/api/schemes")
    List<SiteViews.SchemeLine> schemes() {
        return views.schemes();
    }

    @GetMapping("/api/schemes/{segmentId}")
    SiteViews.SchemeView scheme(@PathVariable long segmentId, @RequestParam String prefix) {
        var row = sites.segment(segmentId);
        var reading = AddressReader.read(prefix, Purpose.PREFIX, AddressContext.NONE);
        if (!reading.usable())
            throw Problem.field("prefix", "bad-prefix", "Type the prefix first; then it is laid out alike.");
        return views.scheme(row, Ipv4Prefix.parse(reading.value()));
    }
}
