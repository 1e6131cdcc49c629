package app.knottag.server.verify;

import app.knottag.core.address.Ipv4Address;
import app.knottag.core.hardware.Mac;
import app.knottag.core.reach.Sweep;
import app.knottag.server.record.Sites;
import java.security.Principal;
import java.time.Instant;
import java.util.List;
import java.util.Optional;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.DeleteMapping;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/** Sweeps of a segment over HTTP: start, look on, stop. */
@RestController
class SweepController {

    record SweepLine(
            Ipv4Address address,
            Sweep.Verdict verdict,
            String name,
            long endpointId,
            @Nullable Mac mac,
            String words) {}

    /** The latest sweep; while it runs {@code answered} counts and the table is not there yet. */
    record SweepView(
            SweepStore.State state,
            Instant startedAt,
            @Nullable Instant endedAt,
            String by,
            int asked,
            int total,
            int answered,
            String vantage,
            List<SweepLine> lines) {}

    record SweepAnswer(@Nullable SweepView sweep) {}

    private final Sweeps sweeps;
    private final Sites sites;
    private final JsonMapper json;

    SweepController(Sweeps sweeps, Sites sites, JsonMapper json) {
        this.sweeps = sweeps;
        this.sites = sites;
        this.json = json;
    }

    @GetMapping("/api/segments/{id}/sweep")
    SweepAnswer latest(@PathVariable long id) {
        sites.segment(id);
        var row = sweeps.latest(id);
        if (row == null) return new SweepAnswer(null);
        // Once it has ended, what it told on its way says nothing any more.
        var running = row.state() == SweepStore.State.RUNNING ? sweeps.running(id) : Optional.<Sweeps.Progress>empty();
        var lines = json.readValue(row.results().text(), new TypeReference<List<Sweep.Line>>() {}).stream()
                .map(l -> new SweepLine(
                        l.address(),
                        l.verdict(),
                        l.name(),
                        l.endpointId(),
                        l.mac().orElse(null),
                        l.words()))
                .toList();
        return new SweepAnswer(new SweepView(
                row.state(),
                row.startedAt(),
                row.endedAt(),
                row.by(),
                Math.max(row.asked(), running.map(Sweeps.Progress::asked).orElse(0)),
                row.total(),
                running.map(Sweeps.Progress::answered).orElse(lines.size()),
                row.vantage(),
                lines));
    }

    @PostMapping("/api/segments/{id}/sweep")
    @ResponseStatus(HttpStatus.ACCEPTED)
    SweepAnswer start(@PathVariable long id, Principal by) {
        sweeps.start(id, by.getName());
        return latest(id);
    }

    @DeleteMapping("/api/segments/{id}/sweep")
    SweepAnswer cancel(@PathVariable long id) {
        sweeps.cancel(id);
        return latest(id);
    }
}
