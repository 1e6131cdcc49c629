package app.knottag.server.plan;

import app.knottag.core.hardware.Gear.Role;
import app.knottag.core.hardware.Gear.Type;
import app.knottag.core.hardware.Outlet.State;
import app.knottag.core.kind.Kinds;
import app.knottag.core.kind.Protocol;
import app.knottag.core.series.Series;
import app.knottag.core.time.DateStyle;
import app.knottag.server.change.Hand;
import app.knottag.server.plan.SegmentForm.SegmentRequest;
import app.knottag.server.plan.Sheet.Thing;
import app.knottag.server.plan.SiteForm.SiteChangeRequest;
import app.knottag.server.record.SegmentGuard;
import app.knottag.server.record.SiteStore.SeriesRow;
import app.knottag.server.record.SiteStore.ServiceRow;
import app.knottag.server.record.Sites;
import app.knottag.server.record.WiringStore.GearRow;
import app.knottag.server.record.WiringStore.OutletRow;
import app.knottag.server.record.WiringStore.PlaceRow;
import app.knottag.server.record.WiringStore.PortRow;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Problem;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/**
 * The site sheet over HTTP. Every change names the version of the sheet that it was made from; the id 0 adds a new
 * thing, which that version keeps from being added twice.
 */
@RestController
class SheetController {

    record SeriesRequest(
            @NotNull String name,
            @NotNull Series.Counts counts,
            Long segmentId,
            Long gearId,
            Long followsId,
            int base,
            int portBase,
            int last,
            double perYear) {}

    record PlaceRequest(@NotNull String name, int walk) {}

    record OutletRequest(
            @NotNull String name, String place, @NotNull State state, Long portId) {}

    record PortRequest(int number, @NotNull Role role, Long segmentId, boolean poe) {}

    record GearRequest(
            @NotNull String name,
            @NotNull Type type,
            String place,
            @NotNull List<@Valid PortRequest> ports) {}

    record ServiceRequest(
            @NotNull String name,
            @NotNull Protocol protocol,
            @NotNull String host,
            int port,
            @Nullable List<String> kinds) {}

    record SheetKept(long id) {}

    private final Kinds kinds;
    private final Sites sites;
    private final SegmentGuard guard;
    private final Sheet sheet;

    private final SheetViews views;

    SheetController(Sites sites, Sheet sheet, SegmentGuard guard, Kinds kinds, SheetViews views) {
        this.views = views;
        this.kinds = kinds;
        this.sites = sites;
        this.guard = guard;
        this.sheet = sheet;
    }

    @GetMapping("/api/sites/{siteId}/sheet")
    ResponseEntity<SheetViews.SheetView> one(@PathVariable long siteId) {
        var view = views.one(siteId);
        return Etags.answer(HttpStatus.OK, view.site().version(), view);
    }

    private Hand hand(long siteId, String ifMatch, Principal by) {
        sites.site(siteId);
        return new Hand(siteId, Etags.required(ifMatch), by.getName());
    }

    private static final String IN_USE = "Something still points at it. Move that first.";

    @PutMapping("/api/sites/{siteId}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void site(
            @PathVariable long siteId,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody SiteChangeRequest body,
            Principal by) {
        SheetConflicts.guard(IN_USE, () -> {
            sheet.site(hand(siteId, ifMatch, by), SiteForm.read(body));
            return null;
        });
    }

    record DatesRequest(@NotNull DateStyle dates) {}

    @PutMapping("/api/sites/{siteId}/dates")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void dates(
            @PathVariable long siteId,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody DatesRequest body,
            Principal by) {
        sheet.dates(hand(siteId, ifMatch, by), body.dates());
    }

    @PutMapping("/api/sites/{siteId}/segments/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void segment(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody SegmentRequest body,
            Principal by) {
        var was = sites.segmentOf(siteId, id);
        SheetConflicts.guard(IN_USE, () -> {
            var filled = SegmentForm.read(siteId, id, body);
            if (!filled.segment().prefix().equals(was.prefix()))
                guard.check(filled.segment().prefix());
            sheet.segment(hand(siteId, ifMatch, by), filled);
            return null;
        });
    }

    @DeleteMapping("/api/sites/{siteId}/segments/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeSegment(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            Principal by) {
        sites.segmentOf(siteId, id);
        sheet.removeSegment(hand(siteId, ifMatch, by), id);
    }

    @PutMapping("/api/sites/{siteId}/series/{id}")
    SheetKept series(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody SeriesRequest b,
            Principal by) {
        if (id != 0) views.ownSeries(siteId, id);
        var row = new SeriesRow(
                id,
                siteId,
                b.segmentId(),
                b.name(),
                b.counts(),
                b.base(),
                b.portBase(),
                b.last(),
                b.perYear(),
                b.followsId(),
                b.gearId());
        return SheetConflicts.guard(IN_USE, () -> new SheetKept(sheet.series(hand(siteId, ifMatch, by), row)));
    }

    @DeleteMapping("/api/sites/{siteId}/series/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void removeSeries(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            Principal by) {
        views.ownSeries(siteId, id);
        SheetConflicts.guard("Another series counts along with it. Change that first.", () -> {
            sheet.removeSeries(hand(siteId, ifMatch, by), id);
            return null;
        });
    }

    @PutMapping("/api/sites/{siteId}/places/{id}")
    SheetKept place(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody PlaceRequest b,
            Principal by) {
        if (id != 0) views.own(siteId, Thing.PLACES, id);
        return SheetConflicts.guard(
                IN_USE,
                () -> new SheetKept(
                        sheet.place(hand(siteId, ifMatch, by), new PlaceRow(id, siteId, b.name(), b.walk()))));
    }

    @PutMapping("/api/sites/{siteId}/outlets/{id}")
    SheetKept outlet(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody OutletRequest b,
            Principal by) {
        if (id != 0) views.own(siteId, Thing.OUTLETS, id);
        var row = new OutletRow(id, siteId, b.name(), null, b.place(), b.state(), b.portId());
        return SheetConflicts.guard(IN_USE, () -> new SheetKept(sheet.outlet(hand(siteId, ifMatch, by), row)));
    }

    @PutMapping("/api/sites/{siteId}/services/{id}")
    SheetKept service(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody ServiceRequest b,
            Principal by) {
        if (id != 0) views.own(siteId, Thing.SERVICES, id);
        if (b.protocol() == Protocol.LINE)
            throw Problem.field("protocol", "bad-protocol", "A line is for endpoints; choose what the service speaks.");
        var callers = b.kinds() == null ? List.<String>of() : b.kinds();
        for (var kind : callers)
            if (kinds.find(kind).isEmpty())
                throw Problem.field("kinds", "no-such-kind", "There is no kind “" + kind + "”.");
        var row = new ServiceRow(id, siteId, b.name(), b.protocol(), b.host(), b.port(), String.join(",", callers));
        return SheetConflicts.guard(IN_USE, () -> new SheetKept(sheet.service(hand(siteId, ifMatch, by), row)));
    }

    @PutMapping("/api/sites/{siteId}/gear/{id}")
    SheetKept gear(
            @PathVariable long siteId,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody GearRequest b,
            Principal by) {
        if (id != 0) views.own(siteId, Thing.GEAR, id);
        var row = new GearRow(id, siteId, b.name(), b.type(), null);
        var ports = b.ports().stream()
                .map(p -> new PortRow(0, id, "", p.number(), p.role(), p.segmentId(), p.poe()))
                .toList();
        return SheetConflicts.guard(
                IN_USE, () -> new SheetKept(sheet.gear(hand(siteId, ifMatch, by), row, b.place(), ports)));
    }

    @DeleteMapping("/api/sites/{siteId}/things/{thing}/{id}")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void remove(
            @PathVariable long siteId,
            @PathVariable Thing thing,
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            Principal by) {
        views.own(siteId, thing, id);
        SheetConflicts.guard(IN_USE, () -> {
            sheet.remove(hand(siteId, ifMatch, by), thing, id);
            return null;
        });
    }
}
