package app.knottag.server.onboard;

import app.knottag.server.onboard.Nights.BusyTime;
import app.knottag.server.onboard.Nights.NightView;
import app.knottag.server.record.Sites;
import app.knottag.server.web.Dates;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.ArrayList;
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

    /** Hours as they are typed. */
    record BusyTyped(
            @NotNull String from,
            @NotNull String until,
            @NotNull String what) {}

    record BusyRequest(@NotNull List<@Valid BusyTyped> busy) {}

    private final Nights nights;
    private final Sites sites;

    NightController(Nights nights, Sites sites) {
        this.nights = nights;
        this.sites = sites;
    }

    @GetMapping("/api/sites/{siteId}/night")
    NightView night(@PathVariable long siteId) {
        return nights.night(siteId);
    }

    @PutMapping("/api/sites/{siteId}/night/busy")
    NightView busy(@PathVariable long siteId, @Valid @RequestBody BusyRequest body, Principal by) {
        var style = sites.site(siteId).dates();
        var read = new ArrayList<BusyTime>();
        for (var b : body.busy()) {
            String field = "busy/" + read.size();
            read.add(new BusyTime(
                    Dates.time(field + "/from", b.from(), style),
                    Dates.time(field + "/until", b.until(), style),
                    b.what()));
        }
        return nights.busy(siteId, read, by.getName());
    }

    @PostMapping("/api/sites/{siteId}/night/hours")
    NightView keep(@PathVariable long siteId, Principal by) {
        return nights.keep(siteId, by.getName());
    }
}
