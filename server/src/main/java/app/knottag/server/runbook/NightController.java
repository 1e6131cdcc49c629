package app.knottag.server.runbook;

import app.knottag.server.runbook.Nights.BusyTime;
import app.knottag.server.runbook.Nights.NightView;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RestController;

/** Restarts at night over HTTP. */
@RestController
class NightController {

    record BusyRequest(@NotNull List<@Valid BusyTime> busy) {}

    private final Nights nights;

    NightController(Nights nights) {
        this.nights = nights;
    }

    @GetMapping("/api/sites/{siteId}/night")
    NightView night(@PathVariable long siteId) {
        return nights.night(siteId);
    }

    @PutMapping("/api/sites/{siteId}/night/busy")
    NightView busy(@PathVariable long siteId, @Valid @RequestBody BusyRequest body, Principal by) {
        return nights.busy(siteId, body.busy(), by.getName());
    }

    @PostMapping("/api/sites/{siteId}/night/hours")
    NightView keep(@PathVariable long siteId, Principal by) {
        return nights.keep(siteId, by.getName());
    }
}
