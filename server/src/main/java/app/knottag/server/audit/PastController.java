package app.knottag.server.audit;

import app.knottag.core.audit.Whereabouts.Stretch;
import app.knottag.core.hardware.Mac;
import java.time.Instant;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.bind.annotation.RestController;

/** What was where, as far back as anybody looked. */
@RestController
class PastController {

    /**
     * One device at one address, as one source saw it without a break.
     *
     * @param endpointId 0 for what is on no record
     * @param site another site at which it was; empty for this one
     */
    record StretchView(
            String address,
            String mac,
            long endpointId,
            String name,
            String source,
            Instant first,
            Instant last,
            int looks,
            String site) {}

    /**
     * One device at one port of a switch.
     *
     * @param endpointId 0 for what is on no record
     */
    record PortStayView(String port, String mac, long endpointId, String name, Instant first, Instant last) {}

    /** @param more whether there is more than is shown */
    record PastView(String says, List<StretchView> stretches, List<PortStayView> ports, boolean more) {}

    private final Past past;

    PastController(Past past) {
        this.past = past;
    }

    @GetMapping("/api/sites/{siteId}/past")
    PastView past(
            @PathVariable long siteId,
            @RequestParam(defaultValue = "") String of,
            @RequestParam(defaultValue = "") String at) {
        var told = past.told(siteId, of, at);
        return new PastView(
                told.says(),
                told.stretches().stream().map(PastController::view).toList(),
                told.hung().stream()
                        .map(h -> new PortStayView(
                                h.port(), h.mac().toString(), h.endpoint(), h.name(), h.first(), h.last()))
                        .toList(),
                told.more());
    }

    private static StretchView view(Stretch s) {
        return new StretchView(
                s.address().toString(),
                s.mac().map(Mac::toString).orElse(""),
                s.endpoint(),
                s.name(),
                s.source().words(),
                s.first(),
                s.last(),
                s.looks(),
                s.site());
    }
}
