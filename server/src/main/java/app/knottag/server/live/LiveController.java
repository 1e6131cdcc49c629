package app.knottag.server.live;

import app.knottag.server.web.Problem;
import app.knottag.server.web.Scope;
import io.swagger.v3.oas.annotations.media.Content;
import io.swagger.v3.oas.annotations.media.Schema;
import io.swagger.v3.oas.annotations.responses.ApiResponse;
import java.security.Principal;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.RequestHeader;
import org.springframework.web.bind.annotation.RestController;
import org.springframework.web.servlet.mvc.method.annotation.SseEmitter;

/** The stream of what is changed, for pages that are open. */
@RestController
class LiveController {

    private final LiveStreams streams;

    LiveController(LiveStreams streams) {
        this.streams = streams;
    }

    @GetMapping(path = "/api/live", produces = MediaType.TEXT_EVENT_STREAM_VALUE)
    @ApiResponse(
            responseCode = "200",
            content =
                    @Content(
                            mediaType = MediaType.TEXT_EVENT_STREAM_VALUE,
                            schema = @Schema(implementation = Changed.class)))
    ResponseEntity<SseEmitter> live(
            Principal person, @RequestHeader(name = "Last-Event-ID", defaultValue = "") String last) {
        var stream = streams.open(person.getName(), Scope.now(), last)
                .orElseThrow(() -> Problem.of(
                        HttpStatus.TOO_MANY_REQUESTS,
                        "too-many-pages",
                        "Too many pages are open at once. This one asks again now and then instead."));
        // A proxy that gathers the answer before it hands it on would hold everything back.
        return ResponseEntity.ok().header("X-Accel-Buffering", "no").body(stream);
    }
}
