package app.knottag.server.reach;

import app.knottag.server.reach.Confirm.Round;
import app.knottag.server.web.Etags;
import app.knottag.server.web.Idempotency;
import java.security.Principal;
import java.util.Map;
import org.jspecify.annotations.Nullable;
import org.springframework.http.HttpStatus;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestBody;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.ResponseStatus;
import org.springframework.web.bind.annotation.RestController;

/** Rounds of checks and sign-off over HTTP. */
@RestController
class ReachController {

    record ConfirmationRequest(String seenAtPartner) {}

    /** The latest round, or none yet. */
    record RoundAnswer(@Nullable Round round) {}

    record Made(long id) {}

    private final Confirm confirm;
    private final Idempotency idempotency;

    ReachController(Confirm confirm, Idempotency idempotency) {
        this.confirm = confirm;
        this.idempotency = idempotency;
    }

    @GetMapping("/api/endpoints/{id}/rounds/latest")
    RoundAnswer latest(@PathVariable long id) {
        return new RoundAnswer(confirm.latest(id).orElse(null));
    }

    @PostMapping("/api/endpoints/{id}/rounds")
    @ResponseStatus(HttpStatus.CREATED)
    RoundAnswer round(
            @PathVariable long id,
            @RequestHeader(name = "Idempotency-Key", required = false) String key,
            Principal by) {
        idempotency.once(
                by.getName(), key, Map.of("round of", id), Made.class, () -> new Made(confirm.round(id, by.getName())));
        return latest(id);
    }

    @PostMapping("/api/endpoints/{id}/confirmation")
    @ResponseStatus(HttpStatus.NO_CONTENT)
    void signOff(
            @PathVariable long id,
            @RequestHeader(name = "If-Match", required = false) String ifMatch,
            @RequestBody ConfirmationRequest body,
            Principal by) {
        confirm.signOff(id, Etags.required(ifMatch), body.seenAtPartner(), by.getName());
    }
}
