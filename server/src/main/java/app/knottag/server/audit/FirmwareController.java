package app.knottag.server.audit;

import app.knottag.core.hardware.Firmware.Verdict;
import app.knottag.server.audit.Firmwares.Concerned;
import app.knottag.server.audit.Firmwares.Fault;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.LocalDate;
import java.util.Comparator;
import java.util.List;
import java.util.Optional;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** Firmware of units and its known faults, over HTTP. */
@RestController
class FirmwareController {

    /** @param version empty when it was not read yet */
    record FirmwareUnitView(
            long endpointId,
            String name,
            String place,
            String model,
            String version,
            @Nullable LocalDate readOn) {}

    /** @param words how it stands to the fault */
    record ConcernedView(Verdict verdict, String words, FirmwareUnitView unit) {}

    /** @param concerned units there that have the fault, or of which it cannot be told */
    record ConcernedSiteView(long siteId, String site, int concerned) {}

    /**
     * @param here units of this site that have it, or of which it cannot be told
     * @param elsewhere the other sites that have such
     * @param mended how many units of all sites have it no longer
     */
    record FirmwareFaultView(
            long id,
            String kind,
            String model,
            String mendedIn,
            String what,
            String by,
            List<ConcernedView> here,
            List<ConcernedSiteView> elsewhere,
            int mended) {}

    record FirmwareKindView(String kind, String name, int count) {}

    /** @param kind whose units are shown; empty when there are none */
    record FirmwareView(
            List<FirmwareFaultView> faults, List<FirmwareKindView> kinds, String kind, List<FirmwareUnitView> units) {}

    record FirmwareRequest(@NotNull String version, String day) {}

    record FirmwareFaultRequest(
            @NotNull String kind,
            String model,
            @NotNull String mendedIn,
            @NotNull String what) {}

    private final Firmwares firmwares;

    FirmwareController(Firmwares firmwares) {
        this.firmwares = firmwares;
    }

    @GetMapping("/api/sites/{siteId}/firmware")
    FirmwareView firmware(@PathVariable long siteId, @RequestParam(defaultValue = "") String kind) {
        var listed = firmwares.at(siteId, kind);
        return new FirmwareView(
                listed.faults().stream().map(f -> view(f, siteId)).toList(),
                listed.kinds().stream()
                        .map(k -> new FirmwareKindView(k.kind(), firmwares.name(k.kind()), k.count()))
                        .toList(),
                listed.kind(),
                listed.units().stream().map(FirmwareController::view).toList());
    }

    private FirmwareFaultView view(Fault fault, long siteId) {
        var open = fault.concerned().stream()
                .filter(c -> c.verdict() != Verdict.MENDED)
                .toList();
        var elsewhere = open.stream()
                .filter(c -> c.unit().siteId() != siteId)
                .collect(Collectors.groupingBy(c -> c.unit().siteId()));
        var f = fault.row();
        return new FirmwareFaultView(
                f.id(),
                firmwares.name(f.kind()),
                f.model(),
                f.mendedIn(),
                f.what(),
                f.by(),
                open.stream()
                        .filter(c -> c.unit().siteId() == siteId)
                        .sorted(Comparator.comparing(Concerned::verdict))
                        .map(c -> new ConcernedView(c.verdict(), c.verdict().words(), view(c.unit())))
                        .toList(),
                elsewhere.values().stream()
                        .map(of -> new ConcernedSiteView(
                                of.get(0).unit().siteId(), of.get(0).unit().site(), of.size()))
                        .sorted(Comparator.comparingInt(ConcernedSiteView::concerned)
                                .reversed()
                                .thenComparing(ConcernedSiteView::site))
                        .toList(),
                fault.concerned().size() - open.size());
    }

    private static FirmwareUnitView view(FirmwareStore.UnitRow u) {
        return new FirmwareUnitView(
                u.id(),
                u.name(),
                u.place(),
                u.model(),
                Optional.ofNullable(u.version()).orElse(""),
                u.readOn());
    }

    /** What a unit shows as its firmware, and on which day it was read. */
    @PostMapping("/api/endpoints/{id}/firmware")
    void read(@PathVariable long id, @Valid @RequestBody FirmwareRequest body, Principal by) {
        firmwares.read(id, body.version(), body.day(), by.getName());
    }

    /** A fault becomes known; the same word again changes nothing. */
    @PutMapping("/api/firmware-faults")
    void know(@Valid @RequestBody FirmwareFaultRequest body, Principal by) {
        firmwares.know(body.kind(), body.model(), body.mendedIn(), body.what(), by.getName());
    }

    @DeleteMapping("/api/firmware-faults/{id}")
    void forget(@PathVariable long id, Principal by) {
        firmwares.forget(id, by.getName());
    }
}
