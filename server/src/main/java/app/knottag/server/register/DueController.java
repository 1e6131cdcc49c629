package app.knottag.server.register;

import app.knottag.core.reading.ReadingException;
import app.knottag.core.register.GuestPasses;
import app.knottag.core.register.LeadTimes;
import app.knottag.core.register.Lifetime;
import app.knottag.core.register.Reminders.Reminder;
import app.knottag.core.register.Reminders.What;
import app.knottag.server.record.Sites;
import app.knottag.server.register.PrerequisiteStore.PrerequisiteRow;
import app.knottag.server.web.Dates;
import app.knottag.server.web.Idempotency;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Clock;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** What is due, what ends soon, what waits for somebody outside, over HTTP. */
@RestController
class DueController {

    /** Something to do; no unit is named where it is the same for many. */
    record DueItem(
            String key,
            What what,
            Instant at,
            boolean due,
            long registryId,
            @Nullable Long registrationId,
            @Nullable Long endpointId,
            String title,
            String detail) {}

    record OrderItem(
            @Nullable Long id,
            String name,
            String who,
            int days,
            String after,
            @Nullable LocalDate by,
            boolean late,
            boolean done) {}

    record DueView(
            List<DueItem> items,
            List<OrderItem> orders,
            List<String> chain,
            LocalDate earliest,
            @Nullable LocalDate visitOn,
            int visitSlack) {}

    record PrerequisiteRequest(@NotNull String name, String who, int days, String after) {}

    record DoneRequest(boolean done) {}

    record VisitRequest(String on, int slack) {}

    record OrderKept(long id) {}

    /** A stay by the clock of the site. */
    record StayRequest(
            @NotNull String from,
            @NotNull String until,
            int hours,
            @NotNull String opens,
            @NotNull String shuts) {}

    private final Housekeeping housekeeping;
    private final RegistryLines shown;
    private final Orders orders;
    private final Sites sites;
    private final Idempotency idempotency;
    private final Clock clock;

    DueController(
            Housekeeping housekeeping,
            RegistryLines shown,
            Orders orders,
            Sites sites,
            Idempotency idempotency,
            Clock clock) {
        this.housekeeping = housekeeping;
        this.shown = shown;
        this.orders = orders;
        this.sites = sites;
        this.idempotency = idempotency;
        this.clock = clock;
    }

    @GetMapping("/api/sites/{siteId}/due")
    DueView due(@PathVariable long siteId) {
        sites.site(siteId);
        var zone = shown.clock(siteId).zone();
        var now = clock.instant();
        var rows = orders.of(siteId);
        var site = housekeeping.site(siteId);
        LeadTimes plan = housekeeping.leadTimes(site);
        var visit = orders.visit(siteId);
        return new DueView(
                housekeeping.reminders(site).stream()
                        .map(r -> item(r, r.due(now, zone)))
                        .toList(),
                plan.items().stream()
                        .map(o -> new OrderItem(
                                rows.stream()
                                        .filter(p -> p.name().equals(o.item().name()))
                                        .map(PrerequisiteRow::id)
                                        .findFirst()
                                        .orElse(null),
                                o.item().name(),
                                o.item().who(),
                                o.item().days(),
                                o.item().after(),
                                o.by().orElse(null),
                                o.late(),
                                o.item().done()))
                        .toList(),
                plan.chain(),
                plan.earliest(),
                visit.visitOn(),
                visit.visitSlack());
    }

    private static DueItem item(Reminder r, boolean due) {
        return new DueItem(
                r.key(),
                r.what(),
                r.at(),
                due,
                r.registry(),
                r.registration(),
                r.unit() == 0 ? null : Long.valueOf(r.unit()),
                r.title(),
                r.detail());
    }

    @PostMapping("/api/sites/{siteId}/prerequisites")
    @ResponseStatus(HttpStatus.CREATED)
    OrderKept add(
            @PathVariable long siteId,
            @Valid @RequestBody PrerequisiteRequest b,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        sites.site(siteId);
        return idempotency.once(
                by.getName(),
                key,
                List.of(siteId, b),
                OrderKept.class,
                () -> new OrderKept(orders.add(siteId, b.name(), b.who(), b.days(), b.after(), by.getName())));
    }

    @PutMapping("/api/sites/{siteId}/prerequisites/{id}")
    DueView done(@PathVariable long siteId, @PathVariable long id, @Valid @RequestBody DoneRequest b, Principal by) {
        orders.done(siteId, id, b.done(), by.getName());
        return due(siteId);
    }

    @PutMapping("/api/sites/{siteId}/visit")
    DueView visit(@PathVariable long siteId, @Valid @RequestBody VisitRequest b, Principal by) {
        var style = sites.site(siteId).dates();
        orders.visit(siteId, Dates.day("on", b.on(), style), b.slack(), by.getName());
        return due(siteId);
    }

    /** How often a guest has to be registered during a stay; keeps nothing. */
    @PostMapping("/api/sites/{siteId}/guest-passes")
    GuestPasses passes(@PathVariable long siteId, @Valid @RequestBody StayRequest b) {
        var site = shown.clock(siteId);
        try {
            return GuestPasses.of(
                    Dates.moment("from", b.from(), site.style())
                            .atZone(site.zone())
                            .toInstant(),
                    Dates.moment("until", b.until(), site.style())
                            .atZone(site.zone())
                            .toInstant(),
                    new Lifetime(Lifetime.Unit.HOURS, b.hours()),
                    new GuestPasses.Hours(
                            Dates.time("opens", b.opens(), site.style()), Dates.time("shuts", b.shuts(), site.style())),
                    site.zone());
        } catch (ReadingException e) {
            throw Problem.field("until", "bad-stay", e.getMessage());
        }
    }
}
