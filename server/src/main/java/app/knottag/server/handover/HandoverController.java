package app.knottag.server.handover;

import app.knottag.core.handover.Act;
import app.knottag.core.handover.Act.What;
import app.knottag.core.handover.Readiness;
import app.knottag.core.handover.Readiness.Known;
import app.knottag.core.handover.Readiness.LetPass;
import app.knottag.core.handover.TagState;
import app.knottag.core.kind.Opening.Danger;
import app.knottag.core.runbook.Stage.Station;
import app.knottag.server.handover.Handovers.Whole;
import app.knottag.server.web.FormReader;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import jakarta.validation.constraints.Size;
import java.security.Principal;
import java.time.Instant;
import java.time.LocalDate;
import java.util.List;
import java.util.stream.Collectors;
import org.jspecify.annotations.Nullable;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What is missing before a site can be handed over, and what may stay as it is. */
@RestController
class HandoverController {

    record PassView(String reason, String by, Instant at) {}

    record ActView(
            What what,
            String key,
            String title,
            String detail,
            boolean canPass,
            @Nullable PassView passed) {}

    /** An endpoint, how its tag stands, and what is to be done before it can be handed over. */
    record ReadyView(
            long id,
            String name,
            String place,
            Station station,
            boolean ready,
            TagState.State tag,
            List<String> tagWrong,
            @Nullable Instant handedOverAt,
            List<ActView> acts) {}

    record ActEndpoint(long id, String name, String key) {}

    /** The same act for one or more endpoints. */
    record SiteActView(What what, String title, boolean canPass, List<ActEndpoint> endpoints) {}

    record OpeningHolder(
            long endpointId,
            String name,
            String owner,
            @Nullable LocalDate ends,
            boolean overdue,
            String closes) {}

    record SiteOpeningView(Danger danger, String title, List<OpeningHolder> holders) {}

    /** @param ready how many could be handed over now */
    record ReadinessView(
            int ready, List<SiteActView> acts, List<SiteOpeningView> openings, List<ReadyView> endpoints) {}

    record LetPassRequest(
            @NotNull @Size(max = 1000) List<@Valid OpenActRequest> acts,
            @NotNull String reason) {}

    record OpenActRequest(@NotNull Long endpointId, @NotNull String key) {}

    record HungRequest(@NotNull List<Long> endpointIds) {}

    private final Handovers handovers;

    HandoverController(Handovers handovers) {
        this.handovers = handovers;
    }

    @GetMapping("/api/sites/{siteId}/handover")
    ReadinessView site(@PathVariable long siteId) {
        var clock = handovers.clock(siteId);
        var all = handovers.site(siteId);
        var known = all.stream().map(Whole::known).toList();
        return new ReadinessView(
                (int) known.stream().filter(k -> Readiness.ready(k, clock)).count(),
                Readiness.of(known, clock).stream()
                        .map(a -> new SiteActView(
                                a.what(),
                                a.title(),
                                a.what().canPass(),
                                a.endpoints().stream()
                                        .map(d -> new ActEndpoint(
                                                d.known().id(), d.known().name(), d.key()))
                                        .toList()))
                        .toList(),
                Readiness.openings(known, clock).stream()
                        .map(o -> new SiteOpeningView(
                                o.danger(),
                                o.title(),
                                o.holders().stream()
                                        .map(h -> new OpeningHolder(
                                                h.endpoint(),
                                                h.name(),
                                                h.opening().owner(),
                                                h.opening().ends().orElse(null),
                                                h.opening().overdue(clock.today()),
                                                h.opening().closes()))
                                        .toList()))
                        .toList(),
                all.stream()
                        .map(w -> view(w, Readiness.of(w.known(), clock), Readiness.ready(w.known(), clock)))
                        .toList());
    }

    private static ReadyView view(Whole w, List<Act> acts, boolean ready) {
        Known k = w.known();
        return new ReadyView(
                k.id(),
                k.name(),
                w.row().place(),
                k.station(),
                ready,
                k.tag().state(),
                k.tag().wrong(),
                k.handedOver().orElse(null),
                acts.stream().map(HandoverController::view).toList());
    }

    private static ActView view(Act a) {
        return new ActView(
                a.what(),
                a.key(),
                a.title(),
                a.detail(),
                a.what().canPass(),
                a.passed().map(HandoverController::view).orElse(null));
    }

    private static PassView view(LetPass p) {
        return new PassView(p.reason(), p.by(), p.at());
    }

    @PostMapping("/api/sites/{siteId}/let-pass")
    void letPass(@PathVariable long siteId, @Valid @RequestBody LetPassRequest b, Principal by) {
        handovers.letPass(
                siteId,
                b.acts().stream()
                        .collect(Collectors.groupingBy(
                                OpenActRequest::endpointId,
                                Collectors.mapping(OpenActRequest::key, Collectors.toSet()))),
                FormReader.words("reason", b.reason(), true),
                by.getName());
    }

    @DeleteMapping("/api/endpoints/{id}/let-pass/{key}")
    void takeBack(@PathVariable long id, @PathVariable String key, Principal by) {
        handovers.takeBack(id, key, by.getName());
    }

    @PostMapping("/api/sites/{siteId}/tags/hung")
    void hung(@PathVariable long siteId, @Valid @RequestBody HungRequest b, Principal by) {
        if (!b.endpointIds().isEmpty()) handovers.hung(siteId, b.endpointIds(), by.getName());
    }
}
