package app.knottag.server.site;

import app.knottag.core.address.AddressContext;
import app.knottag.core.address.AddressReader;
import app.knottag.core.address.Ipv4Address;
import app.knottag.core.address.Ipv4Prefix;
import app.knottag.core.address.Pool;
import app.knottag.core.address.Purpose;
import app.knottag.core.address.Segment;
import app.knottag.core.log.Words;
import app.knottag.core.series.Series;
import app.knottag.server.plan.EndpointStore;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import app.knottag.server.web.Problem.FieldError;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Clock;
import java.time.Instant;
import java.time.ZoneId;
import java.util.ArrayList;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.Set;
import java.util.TreeSet;
import org.jspecify.annotations.Nullable;
import org.springframework.dao.DataIntegrityViolationException;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Sites and segments over HTTP. */
@RestController
class SiteController {

    record SiteRequest(
            @NotNull String name,
            @NotNull String code,
            @NotNull String zone) {}

    record SegmentRequest(
            @NotNull String name,
            @NotNull String prefix,
            String gateway,
            List<String> resolvers,
            String poolFrom,
            String poolTo,
            String seriesName,
            Integer seriesHostBase,
            Integer seriesPortBase) {}

    record Created(long id) {}

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
            Instant now,
            List<SegmentView> segments,
            List<PartnerView> partners) {}

    private final Sites sites;
    private final SiteStore store;
    private final EndpointStore endpoints;
    private final Idempotency idempotency;
    private final Clock clock;

    SiteController(Sites sites, SiteStore store, EndpointStore endpoints, Idempotency idempotency, Clock clock) {
        this.sites = sites;
        this.store = store;
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
                .filter(s -> s.segmentId() == row.id())
                .map(s -> new Stretch(
                        s.name(),
                        s.hostBase() + 1L,
                        s.hostBase() + (long) Math.max(1, Sites.plain(s).lastFitting(segment))))
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
    Created add(
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
        try {
            return idempotency.once(
                    by.getName(),
                    key,
                    body,
                    Created.class,
                    () -> new Created(sites.add(body.name().strip(), body.code(), body.zone(), by.getName())));
        } catch (DataIntegrityViolationException e) {
            boolean code = String.valueOf(e.getMessage()).contains("site_code_once");
            throw Problem.conflict(
                    code ? "code" : "name",
                    code ? "code-taken" : "name-taken",
                    code
                            ? "Another site has the code " + body.code() + ". Choose another."
                            : "Another site is called so. Add the town, for example.",
                    Map.of());
        }
    }

    @PostMapping("/api/sites/{siteId}/segments")
    @ResponseStatus(HttpStatus.CREATED)
    Created addSegment(
            @PathVariable long siteId,
            @Valid @RequestBody SegmentRequest body,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        sites.site(siteId);
        var errors = new ArrayList<FieldError>();
        Words.problem(body.name(), true).ifPresent(p -> errors.add(new FieldError("/name", "bad-name", p)));
        var prefix = read("prefix", body.prefix(), Purpose.PREFIX, AddressContext.NONE, errors)
                .map(Ipv4Prefix::parse);
        prefix.filter(p -> p.prefixLength() < 8)
                .ifPresent(p -> errors.add(new FieldError("/prefix", "too-wide", "A segment is a /8 or narrower.")));
        if (!errors.isEmpty()) throw Problem.fields(errors);
        var bare = new Segment(prefix.get(), Optional.empty(), List.of());
        var context = new AddressContext(Optional.of(bare), Set.of(), Optional.empty());
        var gateway = optional("gateway", body.gateway(), Purpose.GATEWAY, context, errors);
        var from = optional("poolFrom", body.poolFrom(), Purpose.ADDRESS, context, errors);
        var to = optional("poolTo", body.poolTo(), Purpose.ADDRESS, context, errors);
        var resolvers = new ArrayList<Ipv4Address>();
        for (String text : body.resolvers() == null ? List.<String>of() : body.resolvers())
            optional("resolvers", text, Purpose.RESOLVER, context, errors).ifPresent(resolvers::add);
        if (from.isPresent() != to.isPresent())
            errors.add(new FieldError(
                    from.isPresent() ? "/poolTo" : "/poolFrom",
                    "pool-end-missing",
                    "A pool needs both ends, or neither."));
        else if (from.isPresent() && from.get().compareTo(to.get()) > 0)
            errors.add(new FieldError(
                    "/poolTo",
                    "pool-backwards",
                    "A pool runs upwards: " + to.get() + " comes before " + from.get() + "."));
        else if (from.isPresent()
                && gateway.filter(g -> new Pool(from.get(), to.get()).contains(g))
                        .isPresent())
            errors.add(new FieldError(
                    "/poolFrom", "pool-over-gateway", "The pool covers the gateway " + gateway.get() + "."));
        boolean named = body.seriesName() != null && !body.seriesName().isBlank();
        if (named && body.seriesHostBase() == null)
            errors.add(new FieldError("/seriesHostBase", "missing", "Say what is added to the number, such as 50."));
        if (!errors.isEmpty()) throw Problem.fields(errors);
        var pools = from.map(f -> List.of(new Pool(f, to.get()))).orElse(List.of());
        var segment = new Segment(prefix.get(), gateway, pools);
        var series = named
                ? Optional.of(new Series(
                        body.seriesName().strip(),
                        body.seriesHostBase(),
                        body.seriesPortBase() == null ? 0 : body.seriesPortBase()))
                : Optional.<Series>empty();
        try {
            return idempotency.once(
                    by.getName(),
                    key,
                    body,
                    Created.class,
                    () -> new Created(
                            sites.addSegment(siteId, body.name().strip(), segment, resolvers, series, by.getName())));
        } catch (DataIntegrityViolationException e) {
            var other = store.segments(siteId).stream()
                    .filter(s -> s.prefix().overlaps(prefix.get()))
                    .findFirst();
            throw Problem.conflict(
                    "prefix",
                    "segment-overlap",
                    other.map(o -> prefix.get() + " overlaps " + o.name() + ", " + o.prefix() + ".")
                            .orElse("This segment or series clashes with another one."),
                    Map.of());
        }
    }

    private static Optional<Ipv4Address> optional(
            String field, String text, Purpose purpose, AddressContext context, List<FieldError> errors) {
        return text == null || text.isBlank()
                ? Optional.empty()
                : read(field, text, purpose, context, errors).map(Ipv4Address::parse);
    }

    private static Optional<String> read(
            String field, String text, Purpose purpose, AddressContext context, List<FieldError> errors) {
        var reading = AddressReader.read(text, purpose, context);
        if (reading.usable() && !reading.value().contains(":")) return Optional.of(reading.value());
        var finding = reading.findings().stream().findFirst();
        errors.add(new FieldError(
                "/" + field,
                finding.map(f -> f.code().name()).orElse("IPV6"),
                finding.map(f -> f.message()).orElse("Only IPv4 can be planned here so far.")));
        return Optional.empty();
    }
}
