package app.knottag.server.handover;

import app.knottag.core.handover.SealReport;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RestController;

/** What is packed away for the night, and its seals. */
@RestController
class PackedController {

    private final PackedAway packed;

    PackedController(PackedAway packed) {
        this.packed = packed;
    }

    @GetMapping("/api/sites/{siteId}/seals")
    List<SealReport> nights(@PathVariable long siteId) {
        return packed.nights(siteId);
    }

    @PostMapping("/api/endpoints/{id}/unpack")
    void unpack(@PathVariable long id, Principal by) {
        packed.unpack(id, by.getName());
    }
}
