package app.knottag.server.register;

import app.knottag.core.hardware.Interface.Medium;
import app.knottag.core.hardware.Mac;
import app.knottag.server.change.Conflicts;
import app.knottag.server.record.Endpoints;
import app.knottag.server.record.InterfaceStore.InterfaceRow;
import app.knottag.server.register.InterfaceForm.InterfacesRequest;
import app.knottag.server.web.Etags;
import jakarta.validation.Valid;
import jakarta.validation.constraints.NotNull;
import java.security.Principal;
import java.util.Arrays;
import java.util.List;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.PutMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;

/** The interfaces of an endpoint over HTTP. A change names the version of the endpoint that was seen. */
@RestController
class InterfaceController {

    record InterfaceView(long id, Medium medium, String words, Mac mac, String standsAt, boolean counts) {}

    record MoveRequest(@NotNull Long endpointId) {}

    record Moved(List<String> said) {}

    private final InterfaceWork work;
    private final InterfaceForm form;
    private final Endpoints endpoints;
    private final Conflicts conflicts;

    InterfaceController(InterfaceWork work, InterfaceForm form, Endpoints endpoints, Conflicts conflicts) {
        this.work = work;
        this.form = form;
        this.endpoints = endpoints;
        this.conflicts = conflicts;
    }

    @GetMapping("/api/endpoints/{id}/interfaces")
    List<InterfaceView> of(@PathVariable long id) {
        endpoints.get(id);
        return work.of(id).stream().map(InterfaceController::view).toList();
    }

    private static InterfaceView view(InterfaceRow i) {
        return new InterfaceView(i.id(), i.medium(), i.medium().words(), i.mac(), i.standsAt(), i.counts());
    }

    @PutMapping("/api/endpoints/{id}/interfaces")
    List<InterfaceView> keep(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody InterfacesRequest b,
            Principal by) {
        var endpoint = endpoints.get(id);
        int expected = Etags.required(ifMatch);
        return conflicts.guard(endpoint.siteId(), endpoint.segmentId(), () -> {
            work.keep(id, expected, form.read(endpoint, b), by.getName());
            return of(id);
        });
    }

    @PostMapping("/api/interfaces/{id}/moves")
    Moved move(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @Valid @RequestBody MoveRequest b,
            Principal by) {
        return new Moved(work.move(id, b.endpointId(), Etags.required(ifMatch), by.getName()));
    }

    @GetMapping("/api/media")
    List<MediumView> media() {
        return Arrays.stream(Medium.values())
                .map(m -> new MediumView(m, m.words()))
                .toList();
    }

    record MediumView(Medium medium, String words) {}
}
