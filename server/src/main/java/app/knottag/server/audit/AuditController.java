package app.knottag.server.audit;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.audit.Audit;
import app.knottag.core.audit.Finding;
import app.knottag.core.audit.Standing;
import app.knottag.core.audit.WayBack;
import app.knottag.core.hardware.Mac;
import app.knottag.core.plan.Sighting.Source;
import app.knottag.core.status.Status;
import app.knottag.server.web.Etags;
import app.knottag.server.web.FormReader;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.time.Instant;
import java.util.List;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** What is really there, and what somebody says of those whom nobody knows. */
@RestController
class AuditController {

    /** Where a device was seen, from when to when. */
    record StayView(Ipv4Address at, Instant since, Instant last) {}

    /**
     * One device that is not as on record, or on none.
     *
     * @param endpointId 0 for one that is on no record
     * @param mac that was seen, or that is on record; empty when there is none
     * @param stays where it was seen last; none when it never was
     * @param segmentId the segment in which that is; 0 for none of ours
     * @param port of a switch at which it was heard last, in the last month; empty when no gear says
     */
    record FindingView(
            Standing standing,
            String words,
            long endpointId,
            String name,
            String mac,
            List<StayView> stays,
            long segmentId,
            String port,
            int sure,
            List<String> sources,
            String says,
            String act) {}

    /**
     * @param drifted how many must be settled
     * @param right how many are as on record
     * @param unseen how many nobody could have seen yet
     */
    record AuditView(
            @Nullable Instant lookedAt,
            Status status,
            int drifted,
            int right,
            int unseen,
            List<FindingView> findings) {}

    record KnownRequest(@NotNull String at, @NotNull String what) {}

    /**
     * What most likely happened to a device that is away from its address, and the ways back.
     *
     * @param words what happened, in a few words
     */
    record WayBackView(String words, WayBack back) {}

    private final Audits audits;
    private final WaysBack waysBack;

    AuditController(Audits audits, WaysBack waysBack) {
        this.audits = audits;
        this.waysBack = waysBack;
    }

    @GetMapping("/api/endpoints/{id}/way-back")
    ResponseEntity<WayBackView> wayBack(@PathVariable long id) {
        var told = waysBack.of(id);
        return Etags.answer(
                HttpStatus.OK, told.version(), new WayBackView(told.back().how().words(), told.back()));
    }

    @GetMapping("/api/sites/{siteId}/audit")
    AuditView audit(@PathVariable long siteId) {
        var audited = audits.audit(siteId);
        var all = audited.findings();
        return new AuditView(
                audited.looked().orElse(null),
                Audit.together(all),
                (int) all.stream().filter(f -> f.standing().drifted()).count(),
                count(all, Standing.AS_RECORDED),
                count(all, Standing.UNSEEN),
                all.stream()
                        .filter(f -> f.standing() != Standing.AS_RECORDED && f.standing() != Standing.UNSEEN)
                        .map(f -> view(
                                f,
                                audited.segment(f),
                                f.mac().map(audited.ports()::get).orElse("")))
                        .toList());
    }

    private static int count(List<Finding> all, Standing standing) {
        return (int) all.stream().filter(f -> f.standing() == standing).count();
    }

    private static StayView view(Finding.Stay stay) {
        return new StayView(stay.at(), stay.first(), stay.last());
    }

    private static FindingView view(Finding f, long segmentId, String port) {
        return new FindingView(
                f.standing(),
                f.standing().words(),
                f.endpoint(),
                f.name(),
                f.mac().map(Mac::toString).orElse(""),
                f.stay().map(AuditController::view).stream().toList(),
                segmentId,
                port,
                f.sure(),
                f.sources().stream().sorted().map(Source::words).toList(),
                f.says(),
                f.act());
    }

    @PutMapping("/api/sites/{siteId}/known-macs/{mac}")
    void know(@PathVariable long siteId, @PathVariable String mac, @Valid @RequestBody KnownRequest b, Principal by) {
        audits.know(
                siteId,
                Mac.parse(mac),
                Ipv4Address.parse(b.at()),
                FormReader.words("what", b.what(), true),
                by.getName());
    }

    @DeleteMapping("/api/sites/{siteId}/known-macs/{mac}")
    void forget(@PathVariable long siteId, @PathVariable String mac, Principal by) {
        audits.forget(siteId, Mac.parse(mac), by.getName());
    }
}
